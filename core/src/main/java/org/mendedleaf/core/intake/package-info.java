/**
 * How revisions come in from people: the guard against the wrong file, matching many to their lines, drafts and
 * check-out, notes, scattered copies and stray safety copies. What decides is pure; {@code recovery} and {@code systems}
 * carry it out.
 */
@org.jspecify.annotations.NullMarked
package org.mendedleaf.core.intake;
