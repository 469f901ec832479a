/**
 * Parts that screens are made of. They know nothing of files and vaults, and of what screens share only the clock and the jobs.
 * Start reading at {@link Ui}.
 */
package org.mendedleaf.desktop.widgets;
