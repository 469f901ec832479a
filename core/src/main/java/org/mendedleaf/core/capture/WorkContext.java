package org.mendedleaf.core.capture;

import java.time.Clock;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.line.Place;

/**
 * Where work is done, and by whom: what everything needs that changes a protected folder. Most work begins with it:
 *
 * <pre>{@code
 * WorkContext context = new WorkContext(vault, place, Clock.systemUTC(), authors, "Ada");
 * new Recovery(context).restore(request, Progress.NONE);
 * new Snapshots(context).take("", "before the audit", Progress.NONE);
 * }</pre>
 *
 * @param vault that keeps the folder
 * @param place the folder
 * @param clock by which it is done
 * @param authors who tell whose a saved file is
 * @param who does it; stands at what is done and in the journal
 */
public record WorkContext(OpenVault vault, Place place, Clock clock, Authors authors, String who) {

    /** A capture of the folder, by whoever saved its files. */
    public Capture capture() {
        return new Capture(vault, place, clock, authors);
    }
}
