import type { LaunchOptions } from 'puppeteer-core';

export function launchOptions(executablePath: string, profile: string): LaunchOptions;
