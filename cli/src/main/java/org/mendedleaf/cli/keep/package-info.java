/**
 * Commands on what is kept and for how long: rules, holds, snapshots, space, erasing. Start reading at {@link RulesCommand}.
 */
package org.mendedleaf.cli.keep;
