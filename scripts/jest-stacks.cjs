Error.stackTraceLimit = 10;
