/**
 * Other systems that keep files: what each can do ({@link org.mendedleaf.core.systems.Capability}), the one interface to
 * all of them ({@link org.mendedleaf.core.systems.OutsideSystem}), and how their points join a line
 * ({@link org.mendedleaf.core.systems.Mirror}, {@link org.mendedleaf.core.systems.MergedLine}).
 */
package org.mendedleaf.core.systems;
