package org.mendedleaf.core.recovery;

import java.util.List;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;

/**
 * What somebody wants to have done with files.
 *
 * @param kind what stands in the journal
 * @param requested versions that shall be somewhere
 * @param collisions what to do where something has the name
 * @param late files that came later than the moment that is wanted
 * @param folders that shall be there, even when nothing is in them
 * @param lateFolders folders that came later and shall be removed when nothing is left in them
 */
public record RestoreRequest(
        ActionKind kind,
        List<RestoreItem> requested,
        Collisions collisions,
        List<Late> late,
        List<TreeAt.Folder> folders,
        List<String> lateFolders) {

    /** Copies the lists. */
    public RestoreRequest {
        requested = List.copyOf(requested);
        late = List.copyOf(late);
        folders = List.copyOf(folders);
        lateFolders = List.copyOf(lateFolders);
    }

    /**
     * A file that came later.
     *
     * @param version that is there
     * @param path where it is
     * @param remove whether it is removed; otherwise it stays
     */
    public record Late(Version version, String path, boolean remove) {}

    /** Restores versions. */
    public static RestoreRequest restore(List<RestoreItem> requested, Collisions collisions) {
        return restore(requested, collisions, List.of());
    }

    /** Restores versions, and folders even when nothing is in them. */
    public static RestoreRequest restore(
            List<RestoreItem> requested, Collisions collisions, List<TreeAt.Folder> folders) {
        return new RestoreRequest(ActionKind.RESTORED, requested, collisions, List.of(), folders, List.of());
    }

    /** The same with other choices for collisions. */
    public RestoreRequest with(Collisions others) {
        return new RestoreRequest(kind, requested, others, late, folders, lateFolders);
    }

    /** The same with other versions to have, as after they were fetched. */
    public RestoreRequest with(List<RestoreItem> others) {
        return new RestoreRequest(kind, others, collisions, late, folders, lateFolders);
    }
}
