/** Every recipe of the handbook, in the order a cook looks for them. One file each. */
import beefSuetTallow from '../data/recipes/beef-suet-tallow.json' with { type: 'json' };
import bisque from '../data/recipes/bisque.json' with { type: 'json' };
import bonedBirdStuffing from '../data/recipes/boned-bird-stuffing.json' with { type: 'json' };
import braiseAndHold from '../data/recipes/braise-and-hold.json' with { type: 'json' };
import brownChickenStock from '../data/recipes/brown-chicken-stock.json' with { type: 'json' };
import brownVealStock from '../data/recipes/brown-veal-stock.json' with { type: 'json' };
import builtFumetSauce from '../data/recipes/built-fumet-sauce.json' with { type: 'json' };
import chickenFat from '../data/recipes/chicken-fat.json' with { type: 'json' };
import chowder from '../data/recipes/chowder.json' with { type: 'json' };
import coconutSauce from '../data/recipes/coconut-sauce.json' with { type: 'json' };
import confit from '../data/recipes/confit.json' with { type: 'json' };
import cookedToCore from '../data/recipes/cooked-to-core.json' with { type: 'json' };
import countryForcemeat from '../data/recipes/country-forcemeat.json' with { type: 'json' };
import courtBouillon from '../data/recipes/court-bouillon.json' with { type: 'json' };
import crispFishSkin from '../data/recipes/crisp-fish-skin.json' with { type: 'json' };
import crispPoultrySkin from '../data/recipes/crisp-poultry-skin.json' with { type: 'json' };
import croquettes from '../data/recipes/croquettes.json' with { type: 'json' };
import crustaceanBoil from '../data/recipes/crustacean-boil.json' with { type: 'json' };
import crustaceanRavigote from '../data/recipes/crustacean-ravigote.json' with { type: 'json' };
import curry from '../data/recipes/curry.json' with { type: 'json' };
import demi from '../data/recipes/demi.json' with { type: 'json' };
import duckGooseFat from '../data/recipes/duck-goose-fat.json' with { type: 'json' };
import duckStockJus from '../data/recipes/duck-stock-jus.json' with { type: 'json' };
import fishBoneSauce from '../data/recipes/fish-bone-sauce.json' with { type: 'json' };
import fishCreamSauce from '../data/recipes/fish-cream-sauce.json' with { type: 'json' };
import fishFumet from '../data/recipes/fish-fumet.json' with { type: 'json' };
import fishInPastry from '../data/recipes/fish-in-pastry.json' with { type: 'json' };
import fishMousseline from '../data/recipes/fish-mousseline.json' with { type: 'json' };
import fishPie from '../data/recipes/fish-pie.json' with { type: 'json' };
import fishcakeMix from '../data/recipes/fishcake-mix.json' with { type: 'json' };
import frameCrisps from '../data/recipes/frame-crisps.json' with { type: 'json' };
import freshSausage from '../data/recipes/fresh-sausage.json' with { type: 'json' };
import friedRice from '../data/recipes/fried-rice.json' with { type: 'json' };
import gameStock from '../data/recipes/game-stock.json' with { type: 'json' };
import glace from '../data/recipes/glace.json' with { type: 'json' };
import gravyRoux from '../data/recipes/gravy-roux.json' with { type: 'json' };
import grilledCollarsWings from '../data/recipes/grilled-collars-wings.json' with { type: 'json' };
import herbOil from '../data/recipes/herb-oil.json' with { type: 'json' };
import inkDressing from '../data/recipes/ink-dressing.json' with { type: 'json' };
import jusReduced from '../data/recipes/jus-reduced.json' with { type: 'json' };
import keptLiquor from '../data/recipes/kept-liquor.json' with { type: 'json' };
import lambDripping from '../data/recipes/lamb-dripping.json' with { type: 'json' };
import lambStock from '../data/recipes/lamb-stock.json' with { type: 'json' };
import lard from '../data/recipes/lard.json' with { type: 'json' };
import meatBoneJus from '../data/recipes/meat-bone-jus.json' with { type: 'json' };
import meatballs from '../data/recipes/meatballs.json' with { type: 'json' };
import mouldedFarce from '../data/recipes/moulded-farce.json' with { type: 'json' };
import noodleBroth from '../data/recipes/noodle-broth.json' with { type: 'json' };
import porkCrackling from '../data/recipes/pork-crackling.json' with { type: 'json' };
import porkStock from '../data/recipes/pork-stock.json' with { type: 'json' };
import poultryBoneJus from '../data/recipes/poultry-bone-jus.json' with { type: 'json' };
import poultryMousseline from '../data/recipes/poultry-mousseline.json' with { type: 'json' };
import pressedConfitRoll from '../data/recipes/pressed-confit-roll.json' with { type: 'json' };
import quickBoneSauce from '../data/recipes/quick-bone-sauce.json' with { type: 'json' };
import ragu from '../data/recipes/ragu.json' with { type: 'json' };
import ravioliFilling from '../data/recipes/ravioli-filling.json' with { type: 'json' };
import rillettes from '../data/recipes/rillettes.json' with { type: 'json' };
import roeCoralButter from '../data/recipes/roe-coral-butter.json' with { type: 'json' };
import saltCureFish from '../data/recipes/salt-cure-fish.json' with { type: 'json' };
import seafoodGarnish from '../data/recipes/seafood-garnish.json' with { type: 'json' };
import secondWash from '../data/recipes/second-wash.json' with { type: 'json' };
import servingShells from '../data/recipes/serving-shells.json' with { type: 'json' };
import settledDressing from '../data/recipes/settled-dressing.json' with { type: 'json' };
import shellButter from '../data/recipes/shell-butter.json' with { type: 'json' };
import shellfishEssence from '../data/recipes/shellfish-essence.json' with { type: 'json' };
import shellfishStock from '../data/recipes/shellfish-stock.json' with { type: 'json' };
import shepherdTypePie from '../data/recipes/shepherd-type-pie.json' with { type: 'json' };
import smallMorsels from '../data/recipes/small-morsels.json' with { type: 'json' };
import springRolls from '../data/recipes/spring-rolls.json' with { type: 'json' };
import steamingFarce from '../data/recipes/steaming-farce.json' with { type: 'json' };
import stirFry from '../data/recipes/stir-fry.json' with { type: 'json' };
import stroganoffType from '../data/recipes/stroganoff-type.json' with { type: 'json' };
import stuffedBonedBird from '../data/recipes/stuffed-boned-bird.json' with { type: 'json' };
import stuffedSquidFilling from '../data/recipes/stuffed-squid-filling.json' with { type: 'json' };
import tacos from '../data/recipes/tacos.json' with { type: 'json' };
import terrineInJelly from '../data/recipes/terrine-in-jelly.json' with { type: 'json' };
import trotterStuffed from '../data/recipes/trotter-stuffed.json' with { type: 'json' };
import warmEmulsion from '../data/recipes/warm-emulsion.json' with { type: 'json' };
import whiteChickenStock from '../data/recipes/white-chicken-stock.json' with { type: 'json' };
import wrappedRoll from '../data/recipes/wrapped-roll.json' with { type: 'json' };

export const recipeFiles: readonly unknown[] = [
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
  gravyRoux,
  bisque,
  fishCreamSauce,
  coconutSauce,
  builtFumetSauce,
  warmEmulsion,
  settledDressing,
  quickBoneSauce,
  steamingFarce,
  mouldedFarce,
  fishInPastry,
  stuffedBonedBird,
  wrappedRoll,
  pressedConfitRoll,
];
