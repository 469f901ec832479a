/**
 * What goes on by itself: which duties a vault has ({@link org.mendedleaf.core.service.VaultDuties}), who does them when several programs
 * could ({@link org.mendedleaf.core.service.WatchLock}), how the background service of a user is asked and ended
 * ({@link org.mendedleaf.core.service.ServiceChannel}), and how it is started with the computer
 * ({@link org.mendedleaf.core.service.Autostart}). It knows no screen and no command. Start reading at {@code VaultDuties}.
 */
@NullMarked
package org.mendedleaf.core.service;

import org.jspecify.annotations.NullMarked;
