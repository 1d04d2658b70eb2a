/** Every cut plan that ships, in the order lists show them. */
import beefBoneInSteaks from '../data/plans/beef-bone-in-steaks.json' with { type: 'json' };
import birdBonedWhole from '../data/plans/bird-boned-whole.json' with { type: 'json' };
import birdBreastsFirst from '../data/plans/bird-breasts-first.json' with { type: 'json' };
import birdCarcassPickedOver from '../data/plans/bird-carcass-picked-over.json' with { type: 'json' };
import birdSupremesThighs from '../data/plans/bird-supremes-thighs.json' with { type: 'json' };
import bonesPickedOver from '../data/plans/bones-picked-over.json' with { type: 'json' };
import carcassPrimals from '../data/plans/carcass-primals.json' with { type: 'json' };
import crabPicked from '../data/plans/crab-picked.json' with { type: 'json' };
import cuttlefishCleaned from '../data/plans/cuttlefish-cleaned.json' with { type: 'json' };
import duckWhole from '../data/plans/duck-whole.json' with { type: 'json' };
import filletBarrelPortions from '../data/plans/fillet-barrel-portions.json' with { type: 'json' };
import filletTrimmedOily from '../data/plans/fillet-trimmed-oily.json' with { type: 'json' };
import filletTrimmedWhite from '../data/plans/fillet-trimmed-white.json' with { type: 'json' };
import flatFilletTrimmed from '../data/plans/flat-fillet-trimmed.json' with { type: 'json' };
import flatfishFourFillets from '../data/plans/flatfish-four-fillets.json' with { type: 'json' };
import flatfishQuarterLoins from '../data/plans/flatfish-quarter-loins.json' with { type: 'json' };
import flatfishTranches from '../data/plans/flatfish-tranches.json' with { type: 'json' };
import foreRibRibs from '../data/plans/fore-rib-ribs.json' with { type: 'json' };
import gameBirdFromFeather from '../data/plans/game-bird-from-feather.json' with { type: 'json' };
import gooseWhole from '../data/plans/goose-whole.json' with { type: 'json' };
import hareJointed from '../data/plans/hare-jointed.json' with { type: 'json' };
import haunchSeamed from '../data/plans/haunch-seamed.json' with { type: 'json' };
import lambLegBoned from '../data/plans/lamb-leg-boned.json' with { type: 'json' };
import lambShoulderBoned from '../data/plans/lamb-shoulder-boned.json' with { type: 'json' };
import langoustineTails from '../data/plans/langoustine-tails.json' with { type: 'json' };
import largeFishQuarterLoins from '../data/plans/large-fish-quarter-loins.json' with { type: 'json' };
import largeLoinBarrel from '../data/plans/large-loin-barrel.json' with { type: 'json' };
import lobsterShelled from '../data/plans/lobster-shelled.json' with { type: 'json' };
import loinBlocksSlices from '../data/plans/loin-blocks-slices.json' with { type: 'json' };
import loinSteaks from '../data/plans/loin-steaks.json' with { type: 'json' };
import monkfishHeadOff from '../data/plans/monkfish-head-off.json' with { type: 'json' };
import oilyFishDrawnPinBoned from '../data/plans/oily-fish-drawn-pin-boned.json' with { type: 'json' };
import oilyFishTwoStrokes from '../data/plans/oily-fish-two-strokes.json' with { type: 'json' };
import porkBellyBoned from '../data/plans/pork-belly-boned.json' with { type: 'json' };
import porkLegSeamed from '../data/plans/pork-leg-seamed.json' with { type: 'json' };
import porkLoinBoned from '../data/plans/pork-loin-boned.json' with { type: 'json' };
import prawnPeeled from '../data/plans/prawn-peeled.json' with { type: 'json' };
import rabbitJointed from '../data/plans/rabbit-jointed.json' with { type: 'json' };
import rackFrenched from '../data/plans/rack-frenched.json' with { type: 'json' };
import roeDeerPrimals from '../data/plans/roe-deer-primals.json' with { type: 'json' };
import roundFishBonedThroughBelly from '../data/plans/round-fish-boned-through-belly.json' with { type: 'json' };
import roundFishLoinPortions from '../data/plans/round-fish-loin-portions.json' with { type: 'json' };
import roundFishSteaks from '../data/plans/round-fish-steaks.json' with { type: 'json' };
import roundFishTwoFillets from '../data/plans/round-fish-two-fillets.json' with { type: 'json' };
import saddleCannons from '../data/plans/saddle-cannons.json' with { type: 'json' };
import scallopMeatTrimmed from '../data/plans/scallop-meat-trimmed.json' with { type: 'json' };
import scallopShucked from '../data/plans/scallop-shucked.json' with { type: 'json' };
import shellfishSteamedPicked from '../data/plans/shellfish-steamed-picked.json' with { type: 'json' };
import shinSlices from '../data/plans/shin-slices.json' with { type: 'json' };
import shoulderSeamed from '../data/plans/shoulder-seamed.json' with { type: 'json' };
import sideBlockForPastry from '../data/plans/side-block-for-pastry.json' with { type: 'json' };
import sideLoinsSlices from '../data/plans/side-loins-slices.json' with { type: 'json' };
import sidePrimals from '../data/plans/side-primals.json' with { type: 'json' };
import sirloinOffBone from '../data/plans/sirloin-off-bone.json' with { type: 'json' };
import smallBirdTunnelBoned from '../data/plans/small-bird-tunnel-boned.json' with { type: 'json' };
import smallGameBirdBreasts from '../data/plans/small-game-bird-breasts.json' with { type: 'json' };
import soleSkinnedFillets from '../data/plans/sole-skinned-fillets.json' with { type: 'json' };
import spinyLobsterTail from '../data/plans/spiny-lobster-tail.json' with { type: 'json' };
import squidCleaned from '../data/plans/squid-cleaned.json' with { type: 'json' };
import stripLoinSteaks from '../data/plans/strip-loin-steaks.json' with { type: 'json' };
import supremeTrimmed from '../data/plans/supreme-trimmed.json' with { type: 'json' };
import tailTwoLoins from '../data/plans/tail-two-loins.json' with { type: 'json' };
import trotterBoned from '../data/plans/trotter-boned.json' with { type: 'json' };
import trotterPoachedBoned from '../data/plans/trotter-poached-boned.json' with { type: 'json' };
import turkeyCrownLegs from '../data/plans/turkey-crown-legs.json' with { type: 'json' };
import vealBreastBoned from '../data/plans/veal-breast-boned.json' with { type: 'json' };
import vealRackFrenched from '../data/plans/veal-rack-frenched.json' with { type: 'json' };
import venisonLoinBarrel from '../data/plans/venison-loin-barrel.json' with { type: 'json' };
import waterfowlBonedWhole from '../data/plans/waterfowl-boned-whole.json' with { type: 'json' };
import waterfowlBreastTrimmed from '../data/plans/waterfowl-breast-trimmed.json' with { type: 'json' };
import waterfowlLegsTrimmed from '../data/plans/waterfowl-legs-trimmed.json' with { type: 'json' };
import wholeBirdJoints from '../data/plans/whole-bird-joints.json' with { type: 'json' };
import wildBoarPrimals from '../data/plans/wild-boar-primals.json' with { type: 'json' };
import wildDuckCrown from '../data/plans/wild-duck-crown.json' with { type: 'json' };

export const planFiles: readonly unknown[] = [
  roundFishTwoFillets,
  roundFishLoinPortions,
  roundFishSteaks,
  filletTrimmedWhite,
  oilyFishTwoStrokes,
  oilyFishDrawnPinBoned,
  filletTrimmedOily,
  roundFishBonedThroughBelly,
  sideBlockForPastry,
  sideLoinsSlices,
  monkfishHeadOff,
  tailTwoLoins,
  flatfishFourFillets,
  flatfishTranches,
  flatfishQuarterLoins,
  soleSkinnedFillets,
  flatFilletTrimmed,
  largeFishQuarterLoins,
  largeLoinBarrel,
  loinBlocksSlices,
  loinSteaks,
  crabPicked,
  lobsterShelled,
  spinyLobsterTail,
  langoustineTails,
  prawnPeeled,
  shellfishSteamedPicked,
  scallopShucked,
  scallopMeatTrimmed,
  squidCleaned,
  cuttlefishCleaned,
  wholeBirdJoints,
  birdBreastsFirst,
  birdSupremesThighs,
  supremeTrimmed,
  birdBonedWhole,
  birdCarcassPickedOver,
  smallBirdTunnelBoned,
  duckWhole,
  gooseWhole,
  waterfowlBonedWhole,
  waterfowlBreastTrimmed,
  waterfowlLegsTrimmed,
  turkeyCrownLegs,
  gameBirdFromFeather,
  smallGameBirdBreasts,
  wildDuckCrown,
  rabbitJointed,
  hareJointed,
  roeDeerPrimals,
  wildBoarPrimals,
  venisonLoinBarrel,
  haunchSeamed,
  carcassPrimals,
  saddleCannons,
  rackFrenched,
  lambLegBoned,
  lambShoulderBoned,
  sidePrimals,
  shoulderSeamed,
  porkLegSeamed,
  porkLoinBoned,
  porkBellyBoned,
  trotterBoned,
  trotterPoachedBoned,
  shinSlices,
  vealRackFrenched,
  vealBreastBoned,
  bonesPickedOver,
  filletBarrelPortions,
  foreRibRibs,
  sirloinOffBone,
  beefBoneInSteaks,
  stripLoinSteaks,
];
