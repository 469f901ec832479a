/**
 * What looks wrong in what was captured: detectors are pure, from a {@link History} to {@link Finding findings}; {@link
 * HealthKeeper} looks into each version once, in the background, and {@link Findings} joins what the detectors say with what
 * people decided. Start reading at {@link Detectors}.
 */
@org.jspecify.annotations.NullMarked
package org.mendedleaf.core.findings;
