import Link from 'next/link';
import { call } from '@/app/access';
import { listRecipes } from '@/services/recipes/recipes';
import { Empty, PageTitle } from '@/ui/page';

export const metadata = { title: 'Recipes' };

export default async function Recipes() {
  const recipes = await call(listRecipes, {});
  return (
    <>
      <PageTitle title="Recipes">
        <Link href="/reference" className="btn">
          Reference table
        </Link>
        <Link href="/recipes/import" className="btn btn-primary">
          Bring in a recipe
        </Link>
      </PageTitle>
      {recipes.length === 0 ? (
        <Empty title="No recipe yet">
          <p>Paste one, or bring in a web page or a recipe file: each line is shown as it was understood.</p>
        </Empty>
      ) : (
        <div className="sheet overflow-x-auto">
          <table className="table">
            <thead>
              <tr>
                <th scope="col">Recipe</th>
                <th scope="col" className="text-right">
                  Servings
                </th>
                <th scope="col" className="text-right">
                  Ingredients
                </th>
                <th scope="col" className="text-right">
                  Sessions
                </th>
              </tr>
            </thead>
            <tbody>
              {recipes.map((recipe) => (
                <tr key={recipe.id}>
                  <td>
                    <Link href={`/recipes/${recipe.id}`} className="link font-bold">
                      {recipe.title}
                    </Link>
                    <span className="block text-sm">{recipe.description}</span>
                  </td>
                  <td className="text-right">{recipe.servings}</td>
                  <td className="text-right">{recipe.lines}</td>
                  <td className="text-right">{recipe.sessions}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </>
  );
}
