/**
 * A file's line through time, as values: what a {@link Line}, its {@link LinePoint points} and {@link Version versions} are,
 * and what belongs to them: {@link Place}, {@link Snapshot}, {@link Hold}, {@link Finding}. Nothing here reads or writes
 * anything; the catalogue does. Start reading at {@link Line}.
 */
package org.mendedleaf.core.line;
