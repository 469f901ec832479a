/**
 * Parts that screens are made of. They know nothing of files, vaults and models. Start reading at {@link Ui}.
 */
package org.mendedleaf.desktop.widgets;
