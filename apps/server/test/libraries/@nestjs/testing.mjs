// What the application has loaded of it: builtModule.mjs stands in for this file.
