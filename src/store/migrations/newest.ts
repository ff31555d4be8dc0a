/** The last migration that this version needs: a database that has run it, or later ones too, can be worked with. */
export const NEWEST = '0027-accounts';
