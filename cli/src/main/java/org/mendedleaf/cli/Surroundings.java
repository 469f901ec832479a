package org.mendedleaf.cli;

import java.io.PrintWriter;
import java.time.Clock;
import java.util.Map;

/**
 * What a command sees of the world around it.
 *
 * @param environment variables
 * @param clock of the system
 * @param out for what was asked for
 * @param err for progress and errors
 */
record Surroundings(Map<String, String> environment, Clock clock, PrintWriter out, PrintWriter err) {}
