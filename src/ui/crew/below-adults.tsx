/** Says loudly that a class cannot be held: nobody shall overlook it. */
export function BelowAdults({ why, href }: { why: string; href?: string }) {
  return (
    <div role="alert" className="mb-5 rounded-box border-4 border-error bg-error/10 p-4">
      <p className="text-xl font-bold">{why}</p>
      <p className="text-sm">
        Find somebody, ask for another day, or cancel it. Your local code decides how many adults there have to be, and
        may ask for more.
        {href && (
          <>
            {' '}
            <a href={href} className="link font-semibold">
              Open its crew
            </a>
          </>
        )}
      </p>
    </div>
  );
}
