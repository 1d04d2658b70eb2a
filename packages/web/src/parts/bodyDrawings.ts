/**
 * Our own drawings of the plan families, in one line weight: each area a closed path with the pieces that are cut from it and the
 * point its figure stands on. 240 x 110. What a plan has and a drawing has not is simply not lit.
 */
import type { Body } from '@zabrik/core';

export interface Area {
  readonly pieces: readonly string[];
  readonly d: string;
  readonly at: readonly [number, number];
}

export interface Drawing {
  readonly areas: readonly Area[];
  /** Lines that belong to no piece: eyes, joints, seams. */
  readonly marks?: string;
}

export const drawings: Readonly<Record<Body, Drawing>> = {
  'round-fish': {
    areas: [
      { pieces: ['head', 'cheeks', 'throat'], d: 'M6 56 C14 38 30 28 50 25 L57 60 C40 66 20 64 6 56 Z', at: [32, 48] },
      { pieces: ['gills', 'collar'], d: 'M8 59 C22 66 40 68 57 63 L59 82 C36 82 16 72 8 59 Z', at: [40, 74] },
      {
        pieces: ['fillet', 'side', 'butterfly', 'steak', 'back', 'skinless'],
        d: 'M53 24 C90 13 140 20 176 40 L176 52 L57 52 Z',
        at: [108, 36],
      },
      { pieces: ['frame', 'pin', 'strip', 'ribs', 'lining'], d: 'M57 54 L196 54 L196 59 L58 62 Z', at: [128, 58] },
      { pieces: ['belly', 'guts', 'scrape', 'trim'], d: 'M59 65 L176 61 C146 82 100 91 61 83 Z', at: [102, 75] },
      {
        pieces: ['tail', 'brown'],
        d: 'M179 41 L197 48 L197 52 L179 52 Z M179 61 L197 60 L197 62 C192 66 186 67 179 66 Z',
        at: [188, 48],
      },
      { pieces: ['scales-fins', 'fins', 'skin'], d: 'M199 49 L232 27 C226 46 226 64 232 83 L199 61 Z', at: [216, 56] },
    ],
    marks: 'M25 46 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0',
  },
  flatfish: {
    areas: [
      {
        pieces: ['head', 'gills', 'guts', 'gut', 'cheeks'],
        d: 'M8 56 C14 43 24 34 38 31 L44 80 C28 78 14 69 8 56 Z',
        at: [28, 58],
      },
      {
        pieces: ['skirt', 'fins'],
        d: 'M40 29 C80 0 150 2 200 50 L192 51 C150 18 86 18 44 37 Z M45 74 C86 95 150 95 192 61 L200 62 C150 110 80 108 46 82 Z',
        at: [122, 14],
      },
      { pieces: ['fillet', 'loin', 'tranche', 'skinned'], d: 'M44 40 C86 20 150 20 191 52 L46 53 Z', at: [110, 40] },
      {
        pieces: ['skin', 'dark-skin', 'white-skin', 'trim', 'tail-fillet'],
        d: 'M46 59 L191 60 C150 92 86 92 46 72 Z',
        at: [110, 72],
      },
      {
        pieces: ['frame', 'roe', 'roe-blood', 'tail-bone'],
        d: 'M46 54.5 L194 53.5 L194 58.5 L46 57.5 Z',
        at: [150, 56],
      },
      { pieces: ['tail'], d: 'M202 51 L232 38 C228 50 228 62 232 74 L202 61 Z', at: [216, 56] },
    ],
    marks: 'M24 47 a2.6 2.6 0 1 0 5 0 a2.6 2.6 0 1 0 -5 0 M28 63 a2.6 2.6 0 1 0 5 0 a2.6 2.6 0 1 0 -5 0',
  },
  loin: {
    areas: [
      {
        pieces: ['skin', 'silver', 'cap', 'bark', 'membrane', 'fat', 'brown', 'hair', 'white', 'flap', 'flap-trim'],
        d: 'M22 34 C70 14 160 14 216 40 L210 46 C160 24 72 24 28 43 Z',
        at: [118, 24],
      },
      {
        pieces: ['chain', 'strip', 'pin', 'belly', 'vein', 'rib-trim', 'fillet', 'trim', 'sinew'],
        d: 'M28 76 C74 92 160 92 210 72 L217 78 C164 104 70 104 22 84 Z',
        at: [118, 92],
      },
      {
        pieces: [
          'loin',
          'barrel',
          'trimmed',
          'clean',
          'steak',
          'medallion',
          'cannon',
          'rack',
          'back',
          'roll',
          'slice',
          'skinless',
        ],
        d: 'M56 38 C92 28 148 29 184 42 L184 74 C148 86 92 86 56 77 Z',
        at: [88, 47],
      },
      {
        pieces: ['ends', 'tail', 'shoulder', 'knuckle', 'tips', 'scrape'],
        d: 'M53 39 C42 42 32 45 27 47 L27 72 C32 74 42 76 53 77 Z',
        at: [40, 60],
      },
      {
        pieces: ['head', 'offcut', 'dry', 'shavings', 'edge'],
        d: 'M187 43 C196 46 204 49 210 51 L210 67 C204 70 196 72 187 74 Z',
        at: [199, 60],
      },
      {
        pieces: ['bone', 'bloodline', 'chine', 'blade', 'blood', 'strap'],
        d: 'M60 55 L180 56 L180 61 L60 61 Z',
        at: [160, 58],
      },
    ],
  },
  block: {
    areas: [
      {
        pieces: ['slice', 'portion', 'block', 'saku', 'back'],
        d: 'M62 40 L160 26 L186 40 L186 78 L88 94 L62 78 Z',
        at: [124, 62],
      },
      { pieces: ['ends', 'offcut', 'tail', 'taper'], d: 'M26 46 L56 41 L56 78 L82 94 L52 98 L26 82 Z', at: [46, 70] },
      { pieces: ['shave', 'edge', 'shoulder', 'sinew', 'trim'], d: 'M193 39 L214 36 L214 73 L193 77 Z', at: [203, 58] },
    ],
    marks: 'M88 94 L88 55 L62 40 M88 55 L186 40 M112 90 L112 51 M136 86 L136 47 M160 82 L160 44',
  },
  bird: {
    areas: [
      {
        pieces: ['supreme', 'breast', 'crown', 'boned', 'trim', 'dressed'],
        d: 'M40 50 C52 20 112 8 156 29 L150 56 L44 61 Z',
        at: [78, 42],
      },
      { pieces: ['wing', 'limb', 'feather'], d: 'M96 38 C122 29 146 37 152 48 C132 61 112 59 96 49 Z', at: [124, 46] },
      {
        pieces: ['leg', 'thigh', 'drum', 'bone', 'tendon', 'knuckle'],
        d: 'M112 66 L160 51 C190 60 202 77 222 83 L218 92 C190 92 130 99 112 66 Z',
        at: [160, 74],
      },
      {
        pieces: ['carcass', 'cage', 'back', 'giblets', 'guts', 'liver'],
        d: 'M44 63 L110 66 C114 79 122 87 132 92 C94 100 56 90 44 63 Z',
        at: [82, 80],
      },
      {
        pieces: ['skin-fat', 'vent', 'fat', 'gland', 'skin', 'cavity-fat', 'crackling'],
        d: 'M158 29 C176 26 192 36 198 50 L162 49 Z',
        at: [176, 40],
      },
      { pieces: ['neck', 'head', 'damaged'], d: 'M42 50 C30 48 20 39 12 24 L20 19 C28 33 36 37 48 35 Z', at: [27, 36] },
    ],
  },
  'four-legged': {
    areas: [
      {
        pieces: ['head', 'neck', 'pelt', 'gland'],
        d: 'M14 38 C22 22 36 18 52 26 L56 50 C40 58 22 54 14 38 Z',
        at: [36, 39],
      },
      {
        pieces: ['fore', 'shoulder', 'collar', 'lean', 'flank'],
        d: 'M55 26 C66 22 76 22 86 22 L84 62 C74 66 62 62 58 50 Z',
        at: [71, 43],
      },
      {
        pieces: ['rack', 'best-end', 'rib', 'cote', 'cap', 'strap', 'topside'],
        d: 'M89 22 L122 22 L121 48 L87 48 Z',
        at: [105, 36],
      },
      {
        pieces: ['saddle', 'loin', 'fillet', 'silverside', 'membrane', 'silver', 'fat', 'sausage'],
        d: 'M125 22 C140 22 154 22 166 25 L162 48 L124 48 Z',
        at: [144, 36],
      },
      {
        pieces: ['hind', 'leg', 'rump', 'pelvis', 'bone'],
        d: 'M169 26 C190 28 206 38 210 54 C206 64 196 68 186 68 L165 58 Z',
        at: [187, 48],
      },
      {
        pieces: ['flap', 'belly', 'breast', 'trim', 'damaged', 'rib-trim'],
        d: 'M86 51 L162 51 L162 60 C140 72 104 72 85 65 Z',
        at: [122, 60],
      },
      {
        pieces: ['shank', 'feet', 'trotter'],
        d: 'M64 66 L80 66 L77 102 L68 102 Z M176 70 L192 71 L196 102 L186 102 Z',
        at: [72, 86],
      },
      {
        pieces: ['liver', 'kidney', 'pluck', 'blood', 'knob', 'flare', 'skin', 'dressed'],
        d: 'M100 78 C112 72 134 72 146 78 C140 88 108 88 100 78 Z',
        at: [123, 80],
      },
    ],
    marks: 'M26 34 a2 2 0 1 0 4 0 a2 2 0 1 0 -4 0',
  },
  crab: {
    areas: [
      {
        pieces: ['back', 'brown'],
        d: 'M76 60 C76 36 100 24 122 24 C144 24 168 36 168 60 C150 52 94 52 76 60 Z',
        at: [122, 40],
      },
      {
        pieces: ['body', 'white'],
        d: 'M80 64 C96 57 148 57 164 64 C158 82 142 90 122 90 C102 90 86 82 80 64 Z',
        at: [122, 72],
      },
      {
        pieces: ['claws', 'white', 'shell', 'scrap'],
        d: 'M72 52 C56 46 44 36 40 20 C30 24 22 16 24 6 L38 12 L46 4 C56 12 54 22 48 24 C54 36 64 42 76 46 Z M172 52 C188 46 200 36 204 20 C214 24 222 16 220 6 L206 12 L198 4 C188 12 190 22 196 24 C190 36 180 42 168 46 Z',
        at: [38, 32],
      },
      {
        pieces: ['legs'],
        d: 'M73 74 L43 90 L46 95 L77 79 Z M78 82 L54 101 L58 106 L83 87 Z M171 74 L201 90 L198 95 L167 79 Z M166 82 L190 101 L186 106 L161 87 Z',
        at: [56, 100],
      },
      { pieces: ['gills'], d: 'M66 66 L34 74 L36 79 L68 71 Z M178 66 L210 74 L208 79 L176 71 Z', at: [50, 73] },
      { pieces: ['sac', 'membrane'], d: 'M108 28 L136 28 L131 35 L113 35 Z', at: [122, 31] },
      { pieces: ['flap'], d: 'M114 91 L130 91 L122 106 Z', at: [122, 96] },
    ],
    marks: 'M94 34 C104 29 140 29 150 34',
  },
  lobster: {
    areas: [
      {
        pieces: ['tail', 'meat', 'tail-meat', 'slice', 'trim', 'gut'],
        d: 'M132 42 L178 44 C196 46 206 50 210 55 C206 60 196 64 178 66 L132 68 Z',
        at: [166, 55],
      },
      {
        pieces: ['head', 'inedible', 'shell', 'body'],
        d: 'M84 44 C100 36 118 38 129 42 L129 68 C118 72 100 74 84 66 C78 60 78 50 84 44 Z',
        at: [106, 60],
      },
      { pieces: ['coral'], d: 'M98 49 L126 49 L126 54 L98 54 Z', at: [112, 51] },
      {
        pieces: ['claws', 'claw-meat', 'blade'],
        d: 'M44 36 C30 36 16 28 8 14 C22 12 30 16 34 22 C36 14 44 10 52 12 C58 22 54 32 44 36 Z M44 74 C30 74 16 82 8 96 C22 98 30 94 34 88 C36 96 44 100 52 98 C58 88 54 78 44 74 Z',
        at: [38, 26],
      },
      {
        pieces: ['knuckles', 'knuckle-meat'],
        d: 'M50 33 L60 28 L82 44 L78 50 Z M50 77 L60 82 L82 66 L78 60 Z',
        at: [66, 38],
      },
      {
        pieces: ['legs'],
        d: 'M92 68 L84 84 L87 85 L96 69 Z M104 70 L98 88 L101 89 L108 71 Z M92 42 L84 26 L87 25 L96 41 Z M104 39 L98 22 L101 21 L108 38 Z',
        at: [98, 86],
      },
      { pieces: ['antennae'], d: 'M82 48 L54 52 L54 55 L82 52 Z M82 58 L54 55 L54 58 L82 62 Z', at: [64, 55] },
      { pieces: ['blanched'], d: 'M212 50 L234 40 C230 50 230 60 234 70 L212 60 Z', at: [222, 55] },
    ],
    marks: 'M146 43 L146 67 M160 43 L160 67 M174 44 L174 66 M188 46 L188 64',
  },
  'small-crustacean': {
    areas: [
      { pieces: ['head'], d: 'M24 58 C36 38 62 30 88 36 L92 64 C66 72 40 70 24 58 Z', at: [62, 54] },
      { pieces: ['tail', 'meat'], d: 'M92 37 C130 34 166 44 184 66 L168 78 C150 66 122 62 95 64 Z', at: [134, 54] },
      { pieces: ['shell', 'gut'], d: 'M94 30 C132 24 174 34 194 60 L187 64 C168 42 130 32 93 34 Z', at: [150, 36] },
      { pieces: ['fan'], d: 'M186 69 L214 70 L222 88 L198 98 L172 80 Z', at: [198, 82] },
      {
        pieces: ['claw'],
        d: 'M32 64 L20 84 L8 92 L12 98 L26 92 L40 68 Z M46 69 L40 90 L30 102 L38 105 L48 94 L54 70 Z',
        at: [26, 82],
      },
    ],
    marks:
      'M42 50 a2.4 2.4 0 1 0 4.8 0 a2.4 2.4 0 1 0 -4.8 0 M112 36 L112 63 M130 38 L128 64 M148 42 L144 67 M164 50 L158 72',
  },
  mollusc: {
    areas: [
      {
        pieces: ['shell'],
        d: 'M60 92 C30 70 30 30 74 14 C112 4 136 24 140 48 L128 52 C122 30 102 20 80 26 C50 36 48 68 70 86 Z',
        at: [44, 56],
      },
      {
        pieces: ['meat', 'muscle'],
        d: 'M82 40 C98 30 120 38 124 54 C116 74 92 80 78 68 C72 58 74 46 82 40 Z',
        at: [100, 56],
      },
      { pieces: ['roe', 'liquor'], d: 'M74 86 C92 94 120 86 130 66 L140 70 C130 98 96 106 68 94 Z', at: [110, 90] },
      { pieces: ['frill', 'reject'], d: 'M150 46 C178 34 206 40 220 56 C206 74 176 78 150 64 Z', at: [184, 56] },
      { pieces: ['gland'], d: 'M146 84 C160 78 182 78 194 86 C182 98 158 98 146 84 Z', at: [170, 87] },
    ],
  },
  squid: {
    areas: [
      {
        pieces: ['tube', 'body'],
        d: 'M28 55 L60 34 C100 28 128 32 146 38 L146 72 C128 78 100 82 60 76 Z',
        at: [104, 55],
      },
      {
        pieces: ['wings', 'fins'],
        d: 'M26 50 L16 22 C36 22 54 28 58 31 Z M26 60 L16 88 C36 88 54 82 58 79 Z',
        at: [34, 34],
      },
      {
        pieces: ['tentacles'],
        d: 'M172 44 L226 26 L228 32 L186 50 L232 50 L232 57 L186 60 L228 78 L226 84 L172 66 Z',
        at: [204, 54],
      },
      { pieces: ['guts', 'beak', 'bone'], d: 'M149 39 L169 43 L169 67 L149 71 Z', at: [159, 60] },
      { pieces: ['ink'], d: 'M152 48 L166 48 L166 53 L152 53 Z', at: [159, 51] },
      { pieces: ['skin'], d: 'M62 30 C100 23 130 27 148 33 L147 36 C128 30 100 26 62 32 Z', at: [106, 28] },
    ],
  },
  trotter: {
    areas: [
      { pieces: ['sleeve', 'braised'], d: 'M30 32 C70 26 116 30 150 40 L166 66 C130 78 70 80 30 74 Z', at: [96, 42] },
      { pieces: ['bone'], d: 'M24 46 L138 48 L146 54 L138 60 L24 60 Z', at: [80, 53] },
      { pieces: ['trim'], d: 'M40 78 C74 84 128 82 162 70 L166 78 C130 92 74 92 40 86 Z', at: [104, 84] },
      {
        pieces: ['hair'],
        d: 'M154 41 C176 44 202 52 220 64 L214 74 L186 68 L170 66 Z M172 70 L212 80 L206 92 L168 80 Z',
        at: [192, 62],
      },
    ],
  },
};
