/** Every cut plan that ships, in the order lists show them. */
import birdBonedWhole from '../data/plans/bird-boned-whole.json' with { type: 'json' };
import birdSupremesThighs from '../data/plans/bird-supremes-thighs.json' with { type: 'json' };
import carcassPrimals from '../data/plans/carcass-primals.json' with { type: 'json' };
import crabPicked from '../data/plans/crab-picked.json' with { type: 'json' };
import cuttlefishCleaned from '../data/plans/cuttlefish-cleaned.json' with { type: 'json' };
import duckWhole from '../data/plans/duck-whole.json' with { type: 'json' };
import filletBarrelPortions from '../data/plans/fillet-barrel-portions.json' with { type: 'json' };
import flatfishFourFillets from '../data/plans/flatfish-four-fillets.json' with { type: 'json' };
import flatfishQuarterLoins from '../data/plans/flatfish-quarter-loins.json' with { type: 'json' };
import flatfishTranches from '../data/plans/flatfish-tranches.json' with { type: 'json' };
import foreRibRibs from '../data/plans/fore-rib-ribs.json' with { type: 'json' };
import gameBirdFromFeather from '../data/plans/game-bird-from-feather.json' with { type: 'json' };
import gooseWhole from '../data/plans/goose-whole.json' with { type: 'json' };
import hareJointed from '../data/plans/hare-jointed.json' with { type: 'json' };
import haunchSeamed from '../data/plans/haunch-seamed.json' with { type: 'json' };
import langoustineTails from '../data/plans/langoustine-tails.json' with { type: 'json' };
import largeLoinBarrel from '../data/plans/large-loin-barrel.json' with { type: 'json' };
import lobsterShelled from '../data/plans/lobster-shelled.json' with { type: 'json' };
import loinBlocksSlices from '../data/plans/loin-blocks-slices.json' with { type: 'json' };
import loinSteaks from '../data/plans/loin-steaks.json' with { type: 'json' };
import oilyFishTwoStrokes from '../data/plans/oily-fish-two-strokes.json' with { type: 'json' };
import prawnPeeled from '../data/plans/prawn-peeled.json' with { type: 'json' };
import rabbitJointed from '../data/plans/rabbit-jointed.json' with { type: 'json' };
import rackFrenched from '../data/plans/rack-frenched.json' with { type: 'json' };
import roundFishBonedThroughBelly from '../data/plans/round-fish-boned-through-belly.json' with { type: 'json' };
import roundFishLoinPortions from '../data/plans/round-fish-loin-portions.json' with { type: 'json' };
import roundFishSteaks from '../data/plans/round-fish-steaks.json' with { type: 'json' };
import roundFishTwoFillets from '../data/plans/round-fish-two-fillets.json' with { type: 'json' };
import saddleCannons from '../data/plans/saddle-cannons.json' with { type: 'json' };
import scallopShucked from '../data/plans/scallop-shucked.json' with { type: 'json' };
import shellfishSteamedPicked from '../data/plans/shellfish-steamed-picked.json' with { type: 'json' };
import shinSlices from '../data/plans/shin-slices.json' with { type: 'json' };
import shoulderSeamed from '../data/plans/shoulder-seamed.json' with { type: 'json' };
import sideBlockForPastry from '../data/plans/side-block-for-pastry.json' with { type: 'json' };
import sideLoinsSlices from '../data/plans/side-loins-slices.json' with { type: 'json' };
import sidePrimals from '../data/plans/side-primals.json' with { type: 'json' };
import smallBirdTunnelBoned from '../data/plans/small-bird-tunnel-boned.json' with { type: 'json' };
import smallGameBirdBreasts from '../data/plans/small-game-bird-breasts.json' with { type: 'json' };
import soleSkinnedFillets from '../data/plans/sole-skinned-fillets.json' with { type: 'json' };
import spinyLobsterTail from '../data/plans/spiny-lobster-tail.json' with { type: 'json' };
import squidCleaned from '../data/plans/squid-cleaned.json' with { type: 'json' };
import stripLoinSteaks from '../data/plans/strip-loin-steaks.json' with { type: 'json' };
import tailTwoLoins from '../data/plans/tail-two-loins.json' with { type: 'json' };
import trotterBoned from '../data/plans/trotter-boned.json' with { type: 'json' };
import turkeyCrownLegs from '../data/plans/turkey-crown-legs.json' with { type: 'json' };
import venisonLoinBarrel from '../data/plans/venison-loin-barrel.json' with { type: 'json' };
import wholeBirdJoints from '../data/plans/whole-bird-joints.json' with { type: 'json' };
import wildDuckCrown from '../data/plans/wild-duck-crown.json' with { type: 'json' };

export const planFiles: readonly unknown[] = [
  roundFishTwoFillets,
  roundFishLoinPortions,
  roundFishSteaks,
  oilyFishTwoStrokes,
  roundFishBonedThroughBelly,
  sideBlockForPastry,
  sideLoinsSlices,
  tailTwoLoins,
  flatfishFourFillets,
  flatfishTranches,
  flatfishQuarterLoins,
  soleSkinnedFillets,
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
  squidCleaned,
  cuttlefishCleaned,
  wholeBirdJoints,
  birdSupremesThighs,
  birdBonedWhole,
  smallBirdTunnelBoned,
  duckWhole,
  gooseWhole,
  turkeyCrownLegs,
  gameBirdFromFeather,
  smallGameBirdBreasts,
  wildDuckCrown,
  rabbitJointed,
  hareJointed,
  venisonLoinBarrel,
  haunchSeamed,
  carcassPrimals,
  saddleCannons,
  rackFrenched,
  sidePrimals,
  shoulderSeamed,
  trotterBoned,
  shinSlices,
  filletBarrelPortions,
  foreRibRibs,
  stripLoinSteaks,
];
