import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { Early } from '@/ui/form/early';
import { NOTE_EARLY } from '@/ui/form/note-early';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Logistra', template: '%s · Logistra' },
  description: 'Plans, measures, buys and packs the ingredient kits of community cooking courses.',
  robots: { index: false, follow: false },
};

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Every page carries the nonce of its own answer, so none can be made beforehand.
  await connection();
  const nonce = /'nonce-([^']+)'/.exec((await headers()).get('content-security-policy') ?? '')?.[1];
  return (
    <html lang="en" data-theme="desk">
      <body className="min-h-dvh text-base-content antialiased">
        {/* Our own words, the same for every page. */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: NOTE_EARLY }} />
        {children}
        <Early />
      </body>
    </html>
  );
}
