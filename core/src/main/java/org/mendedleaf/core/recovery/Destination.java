package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.jobs.Progress;

/** Where restored files go: back where they were, into another folder, into an archive. */
public interface Destination {

    /**
     * What carrying the order out would do now, file by file; changes nothing.
     *
     * @throws java.io.InterruptedIOException when somebody asked to stop
     */
    RestorePlan plan(RestoreRequest request, Progress progress) throws IOException;

    /** As {@link #plan(RestoreRequest, Progress)}, to its end. */
    default RestorePlan plan(RestoreRequest request) throws IOException {
        return plan(request, Progress.NONE);
    }

    /**
     * Carries an order out. One file that cannot be done does not stop the others. Whoever cancels it hears what was done by then.
     *
     * @throws IOException with a message for the user, when nothing can be done at all, as with too little space
     */
    RestoreResult restore(RestoreRequest request, Progress progress) throws IOException;

    /** The plan that is carried out now; empty when somebody cancelled before it was made. */
    default Optional<RestorePlan> planNow(RestoreRequest request, Progress progress) throws IOException {
        try {
            return Optional.of(plan(request, progress));
        } catch (InterruptedIOException e) {
            return Optional.empty();
        }
    }

    /** Finds out what is wanted. */
    @FunctionalInterface
    interface Order {
        RestoreRequest find() throws IOException;
    }

    /** As {@link #restore(RestoreRequest, Progress)}; nothing is done when somebody cancels while it is found out what is wanted. */
    default RestoreResult restore(Order order, Progress progress) throws IOException {
        RestoreRequest request;
        try {
            request = order.find();
        } catch (InterruptedIOException e) {
            return RestoreResult.CANCELLED;
        }
        return restore(request, progress);
    }

    /** What restoring these would do. */
    default RestorePlan plan(List<RestoreItem> requested, Collision rule) throws IOException {
        return plan(RestoreRequest.restore(requested, Collisions.all(rule)));
    }

    /** Restores versions to their paths. */
    default RestoreResult restore(List<RestoreItem> requested, Collision rule, Progress progress) throws IOException {
        return restore(RestoreRequest.restore(requested, Collisions.all(rule)), progress);
    }
}
