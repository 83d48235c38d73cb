export declare const chromiumLaunch: { executablePath: string; args: string[] };
