/** What a recipe is made in. */
export const vesselWords = {
  pot: 'a pot',
  pan: 'a wide pan',
  oven: 'the oven',
  blender: 'a blender',
  bath: 'a water bath',
  fryer: 'a fryer',
  bowl: 'a bowl',
  none: '',
} as const;
