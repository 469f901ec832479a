/**
 * Measures, each as a ratio to a baseline in the same run, and what is run for long: kills at any moment, raced saves, planted
 * damage, the guard's pairs. Start reading at {@link Bench}.
 */
package org.mendedleaf.bench;
