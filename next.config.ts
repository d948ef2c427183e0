import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ['pdfkit', 'sequelize', 'sqlite3', 'umzug'],
  // The front door has its own port and address; Next is asked only over loopback.
  compress: true,
  typescript: { ignoreBuildErrors: true },
  experimental: { preloadEntriesOnStart: false },
};

export default config;
