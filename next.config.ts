import type { NextConfig } from 'next';

const config: NextConfig = {
  // Loaded from node_modules at run time: they use dynamic requires or ship binaries.
  serverExternalPackages: [
    'sequelize',
    'mysql2',
    '@node-rs/argon2',
    'pdfkit',
    'fontkit',
    'umzug',
    'exceljs',
    'tinypool',
    'pino',
    'prom-client',
  ],
  poweredByHeader: false,
  reactStrictMode: true,
  // A roll is refused above 2 MB with a clear message; this limit lets that message be given.
  experimental: { serverActions: { bodySizeLimit: '4mb' } },
};

export default config;
