import { orNotFound } from '@/app/or-not-found';
import { viewRecipe } from '@/services/recipes/recipes';
import { PageTitle } from '@/ui/page';
import { RecipeLines } from '@/ui/recipe-lines';
import { call } from '../../../access';

export const metadata = { title: 'Recipe' };

export default async function Recipe({ params }: { params: Promise<{ recipeId: string }> }) {
  const { recipeId } = await params;
  const { title, body } = await orNotFound(call(viewRecipe, { recipeId }));
  return (
    <>
      <PageTitle title={title} over={`Written for ${body.servings} servings`}>
        <a href={`/recipes/${recipeId}/recipe.json`} className="btn" download>
          Take out as JSON-LD
        </a>
      </PageTitle>
      {body.description && <p className="mb-4 max-w-prose">{body.description}</p>}
      <div className="grid gap-6 lg:grid-cols-2">
        <section className="sheet p-5" aria-labelledby="lines">
          <h2 id="lines" className="mb-2 text-xl font-bold">
            Ingredients
          </h2>
          <RecipeLines lines={body.lines} />
        </section>
        <section className="sheet h-fit p-5" aria-labelledby="steps">
          <h2 id="steps" className="mb-2 text-xl font-bold">
            Steps
          </h2>
          {body.steps.length === 0 && <p>The file named no steps.</p>}
          <ol className="flex list-decimal flex-col gap-2 pl-5">
            {body.steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </section>
      </div>
    </>
  );
}
