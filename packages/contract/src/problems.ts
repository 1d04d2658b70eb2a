import { PRACTICE_REFUSED } from '@zabrik/core';
import { z } from 'zod';

/** Every way a request can be refused. `title` is the sentence a cook reads unless the server has a better one with figures. */
export const problems = {
  invalid: { status: 400, title: 'Something in this form cannot be read.' },
  key_missing: { status: 400, title: 'The command has no Idempotency-Key.' },
  not_signed_in: { status: 401, title: 'Sign in first.' },
  wrong_secret: { status: 401, title: 'That is not the PIN for this person.' },
  other_person: {
    status: 409,
    title: 'Someone else is signed in on this device now. This waits until its own cook is back.',
  },
  bad_pin: { status: 409, title: 'This PIN cannot be used. Choose another.' },
  last_head_chef: { status: 409, title: 'A house needs a head chef who can sign in. Make somebody else one first.' },
  name_taken: { status: 409, title: 'There is somebody of that name already, perhaps one who has left.' },
  no_set_up: { status: 409, title: 'A kitchen stands on this machine already. Sign in to it.' },
  wrong_code: { status: 401, title: 'That is not the code.' },
  not_your_role: { status: 403, title: 'Your role cannot do this. Ask a chef.' },
  token_over: { status: 401, title: 'This token does not hold: it was taken back, has run out, or never was one.' },
  not_for_programs: {
    status: 403,
    title: 'A token may not do this: it is done by people, or the token is for reading alone.',
  },
  other_origin: { status: 403, title: 'This command did not come from the app’s own page.' },
  unknown_host: { status: 421, title: 'This kitchen’s server is not known by that address.' },
  not_found: { status: 404, title: 'There is nothing here by that name.' },
  done_before: { status: 409, title: 'This was done before, more than thirty days ago: it is in the records.' },
  file_gone: { status: 410, title: 'This file is not kept any more. Ask for it again.' },
  too_many_jobs: {
    status: 409,
    title: 'Five files are being made already. Wait for one of them, or call one off.',
  },
  key_reused: { status: 409, title: 'This command was already used for something else.' },
  not_enough: { status: 409, title: 'There is less of this lot left than that.' },
  lot_gone: { status: 409, title: 'This lot is used up.' },
  plan_does_not_fit: { status: 409, title: 'This cut plan does not start from that form.' },
  changed_since: { status: 409, title: 'Someone changed this meanwhile. Look at theirs before you save yours.' },
  stage_closed: { status: 409, title: 'This stage is closed. Ask a chef to reopen it.' },
  cutting_closed: { status: 409, title: 'This cutting is closed. Take its entry back in the ledger to go on with it.' },
  tray_refused: { status: 409, title: 'This piece must not go there.' },
  already_replaced: { status: 409, title: 'That weight was already put right.' },
  practice_weights: { status: 409, title: PRACTICE_REFUSED },
  nothing_weighed: { status: 409, title: 'Nothing is weighed yet. Weigh the pieces, or put the animal back.' },
  has_weighings: { status: 409, title: 'Pieces are already weighed. Undo them first.' },
  say_if_cooked: {
    status: 409,
    title: 'This stage cooks it. Say first whether it is cooked through, and where it stands now.',
  },
  out_of_balance: { status: 409, title: 'The pieces do not add up to the start.' },
  nothing_accepted: { status: 409, title: 'None of these lots may go in.' },
  too_much_out: { status: 409, title: 'More came out than went in.' },
  run_not_planned: { status: 409, title: 'This batch is already done or called off.' },
  cooling_closed: { status: 409, title: 'This log is closed.' },
  already_reversed: { status: 409, title: 'This entry was already taken back.' },
  used_since: { status: 409, title: 'What it made has been used since. Take those entries back first.' },
  cannot_reverse: { status: 409, title: 'This kind of entry cannot be taken back.' },
  needs_confirmation: { status: 409, title: 'Look at this before it is done.' },
  cannot_keep: { status: 409, title: 'This lot cannot be kept so.' },
  not_alike: { status: 409, title: 'These lots are not alike.' },
  on_hold: { status: 409, title: 'This lot is held back. Nothing leaves it until a chef lets it go.' },
  goes_in_a_ring: { status: 409, title: 'This was made out of the same tub: it cannot go back into it.' },
  printer_away: { status: 503, title: 'The label printer does not answer. Nothing was printed.' },
  probe_away: { status: 503, title: 'The probe does not answer. Type the temperature.' },
  delivery_closed: { status: 409, title: 'This delivery is closed.' },
  list_undone: { status: 409, title: 'This price list was already taken back.' },
  not_a_picture: { status: 400, title: 'This is not a photograph the app can keep.' },
  too_large: { status: 413, title: 'That is too much at once.' },
  locked_out: { status: 429, title: 'Too many wrong PINs.' },
  too_many: { status: 429, title: 'Too many requests. Wait a moment.' },
  scale_away: { status: 503, title: 'The scale does not answer. Type the weight.' },
  database_away: { status: 503, title: 'The records cannot be reached just now.' },
  busy: { status: 503, title: 'Others are at the same lots just now. Nothing was changed; try again in a moment.' },
  disk_full: {
    status: 507,
    title: 'The disk of the kitchen’s server is full. Nothing more can be written down until there is room on it.',
  },
  broken: { status: 500, title: 'Something broke on our side.' },
} as const;

export type ProblemCode = keyof typeof problems;

/** RFC 9457 problem document. `type` is stable; `field` names what to put right, as a path in the body. */
export const problemSchema = z.looseObject({
  type: z.string(),
  code: z.enum(Object.keys(problems) as [ProblemCode, ...ProblemCode[]]),
  title: z.string(),
  status: z.int(),
  detail: z.string().optional(),
  field: z.string().optional(),
  fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  requestId: z.string().optional(),
});
export type ProblemDocument = z.output<typeof problemSchema>;
