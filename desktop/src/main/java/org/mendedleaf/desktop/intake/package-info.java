/**
 * What comes in: what each file would become, the question of the guard, scattered copies that become one line, and safety
 * copies that programs left. Start reading at {@link IntakeModel}.
 */
package org.mendedleaf.desktop.intake;
