import {
  defineRecipe,
  defineSlotRecipe,
  type RecipeDefinition,
  type SlotRecipeDefinition,
} from '@chakra-ui/react';

/*
 * What uses the theme names tokens alone, and a wrong one does not compile (tokens are strict). Recipes make the look and may
 * also name plain values: a hairline, a gradient, a translation. That their tokens are there is held by a test.
 */

type Styles = Readonly<Record<string, unknown>>;
type Variants<S> = Readonly<Record<string, Readonly<Record<string, S>>>>;
interface Made<S> {
  className: string;
  base?: S;
  variants?: Variants<S>;
  defaultVariants?: Readonly<Record<string, string | boolean>>;
}

/** A recipe of one element. */
export const recipe = (made: Made<Styles>): RecipeDefinition => defineRecipe(made as RecipeDefinition);
/** A recipe of several slots, by the library's anatomy. */
export const slotRecipe = (
  made: Made<Readonly<Record<string, Styles>>> & { slots: readonly string[] },
): SlotRecipeDefinition => defineSlotRecipe(made as unknown as SlotRecipeDefinition);
