/** Commands on other systems and their places. Start reading at {@link ConnectCommand}. */
package org.mendedleaf.cli.systems;
