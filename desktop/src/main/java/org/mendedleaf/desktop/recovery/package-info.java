/**
 * A plan before it is carried out, file by file, and two moments of a folder beside each other. Start reading at {@link
 * PlanModel}.
 */
package org.mendedleaf.desktop.recovery;
