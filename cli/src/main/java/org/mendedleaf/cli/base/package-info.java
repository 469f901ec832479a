/**
 * What all commands share: options, vault and output ({@link Base}), how they end ({@link Outcome}), what they see of the world
 * ({@link Surroundings}). It knows no command. Start reading at {@link Base}.
 */
package org.mendedleaf.cli.base;
