/** Every use of the handbook, in the order a cook looks for them. One file each. */
import beefSuetTallow from '../data/uses/beef-suet-tallow.json' with { type: 'json' };
import bonedBirdStuffing from '../data/uses/boned-bird-stuffing.json' with { type: 'json' };
import braiseAndHold from '../data/uses/braise-and-hold.json' with { type: 'json' };
import brownChickenStock from '../data/uses/brown-chicken-stock.json' with { type: 'json' };
import brownVealStock from '../data/uses/brown-veal-stock.json' with { type: 'json' };
import chickenFat from '../data/uses/chicken-fat.json' with { type: 'json' };
import chowder from '../data/uses/chowder.json' with { type: 'json' };
import confit from '../data/uses/confit.json' with { type: 'json' };
import cookedToCore from '../data/uses/cooked-to-core.json' with { type: 'json' };
import countryForcemeat from '../data/uses/country-forcemeat.json' with { type: 'json' };
import courtBouillon from '../data/uses/court-bouillon.json' with { type: 'json' };
import crispFishSkin from '../data/uses/crisp-fish-skin.json' with { type: 'json' };
import crispPoultrySkin from '../data/uses/crisp-poultry-skin.json' with { type: 'json' };
import croquettes from '../data/uses/croquettes.json' with { type: 'json' };
import crustaceanBoil from '../data/uses/crustacean-boil.json' with { type: 'json' };
import crustaceanRavigote from '../data/uses/crustacean-ravigote.json' with { type: 'json' };
import curry from '../data/uses/curry.json' with { type: 'json' };
import demi from '../data/uses/demi.json' with { type: 'json' };
import duckGooseFat from '../data/uses/duck-goose-fat.json' with { type: 'json' };
import duckStockJus from '../data/uses/duck-stock-jus.json' with { type: 'json' };
import fishBoneSauce from '../data/uses/fish-bone-sauce.json' with { type: 'json' };
import fishFumet from '../data/uses/fish-fumet.json' with { type: 'json' };
import fishMousseline from '../data/uses/fish-mousseline.json' with { type: 'json' };
import fishPie from '../data/uses/fish-pie.json' with { type: 'json' };
import fishcakeMix from '../data/uses/fishcake-mix.json' with { type: 'json' };
import frameCrisps from '../data/uses/frame-crisps.json' with { type: 'json' };
import freshSausage from '../data/uses/fresh-sausage.json' with { type: 'json' };
import friedRice from '../data/uses/fried-rice.json' with { type: 'json' };
import gameStock from '../data/uses/game-stock.json' with { type: 'json' };
import glace from '../data/uses/glace.json' with { type: 'json' };
import grilledCollarsWings from '../data/uses/grilled-collars-wings.json' with { type: 'json' };
import herbOil from '../data/uses/herb-oil.json' with { type: 'json' };
import inkDressing from '../data/uses/ink-dressing.json' with { type: 'json' };
import jusReduced from '../data/uses/jus-reduced.json' with { type: 'json' };
import keptLiquor from '../data/uses/kept-liquor.json' with { type: 'json' };
import lambDripping from '../data/uses/lamb-dripping.json' with { type: 'json' };
import lambStock from '../data/uses/lamb-stock.json' with { type: 'json' };
import lard from '../data/uses/lard.json' with { type: 'json' };
import meatBoneJus from '../data/uses/meat-bone-jus.json' with { type: 'json' };
import meatballs from '../data/uses/meatballs.json' with { type: 'json' };
import noodleBroth from '../data/uses/noodle-broth.json' with { type: 'json' };
import porkCrackling from '../data/uses/pork-crackling.json' with { type: 'json' };
import porkStock from '../data/uses/pork-stock.json' with { type: 'json' };
import poultryBoneJus from '../data/uses/poultry-bone-jus.json' with { type: 'json' };
import poultryMousseline from '../data/uses/poultry-mousseline.json' with { type: 'json' };
import ragu from '../data/uses/ragu.json' with { type: 'json' };
import ravioliFilling from '../data/uses/ravioli-filling.json' with { type: 'json' };
import rillettes from '../data/uses/rillettes.json' with { type: 'json' };
import roeCoralButter from '../data/uses/roe-coral-butter.json' with { type: 'json' };
import saltCureFish from '../data/uses/salt-cure-fish.json' with { type: 'json' };
import seafoodGarnish from '../data/uses/seafood-garnish.json' with { type: 'json' };
import secondWash from '../data/uses/second-wash.json' with { type: 'json' };
import servingShells from '../data/uses/serving-shells.json' with { type: 'json' };
import shellButter from '../data/uses/shell-butter.json' with { type: 'json' };
import shellfishEssence from '../data/uses/shellfish-essence.json' with { type: 'json' };
import shellfishStock from '../data/uses/shellfish-stock.json' with { type: 'json' };
import shepherdTypePie from '../data/uses/shepherd-type-pie.json' with { type: 'json' };
import smallMorsels from '../data/uses/small-morsels.json' with { type: 'json' };
import springRolls from '../data/uses/spring-rolls.json' with { type: 'json' };
import stirFry from '../data/uses/stir-fry.json' with { type: 'json' };
import stroganoffType from '../data/uses/stroganoff-type.json' with { type: 'json' };
import stuffedSquidFilling from '../data/uses/stuffed-squid-filling.json' with { type: 'json' };
import tacos from '../data/uses/tacos.json' with { type: 'json' };
import terrineInJelly from '../data/uses/terrine-in-jelly.json' with { type: 'json' };
import trotterStuffed from '../data/uses/trotter-stuffed.json' with { type: 'json' };
import whiteChickenStock from '../data/uses/white-chicken-stock.json' with { type: 'json' };

export const useFiles: readonly unknown[] = [
  whiteChickenStock,
  brownChickenStock,
  fishFumet,
  shellfishStock,
  brownVealStock,
  secondWash,
  gameStock,
  duckStockJus,
  porkStock,
  lambStock,
  poultryBoneJus,
  meatBoneJus,
  fishBoneSauce,
  demi,
  glace,
  jusReduced,
  shellfishEssence,
  courtBouillon,
  crustaceanBoil,
  keptLiquor,
  fishMousseline,
  poultryMousseline,
  countryForcemeat,
  bonedBirdStuffing,
  rillettes,
  ravioliFilling,
  fishcakeMix,
  freshSausage,
  stuffedSquidFilling,
  crustaceanRavigote,
  terrineInJelly,
  trotterStuffed,
  duckGooseFat,
  chickenFat,
  beefSuetTallow,
  lard,
  lambDripping,
  shellButter,
  confit,
  braiseAndHold,
  cookedToCore,
  saltCureFish,
  crispFishSkin,
  crispPoultrySkin,
  porkCrackling,
  roeCoralButter,
  inkDressing,
  herbOil,
  smallMorsels,
  frameCrisps,
  seafoodGarnish,
  servingShells,
  stirFry,
  stroganoffType,
  springRolls,
  fishPie,
  curry,
  ragu,
  noodleBroth,
  tacos,
  meatballs,
  shepherdTypePie,
  friedRice,
  chowder,
  grilledCollarsWings,
  croquettes,
];
