package org.mendedleaf.core.capture;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.ScanStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.DiskEntry;

/**
 * Names of which the last scan says nothing any more, since the program itself changes them. Without that, a file that was put
 * in and went again before the next scan would leave the folder as that scan had seen it, and be taken to be there for ever.
 */
public final class Unsettled {

    private Unsettled() {}

    /** The next scan takes the folder for changed, and looks at these names anew, whether they are there then or not. */
    public static void names(WriteSession session, long folder, Set<String> names) throws IOException {
        Optional<byte[]> known = ScanStore.entries(session, folder);
        if (known.isEmpty()) {
            return;
        }
        Map<String, SeenName> seen = ScanBlob.decode(known.get());
        DiskEntry none = new DiskEntry(DiskEntry.Type.FILE, 0, 0, 0, 0);
        for (String name : names) {
            seen.put(name, new SeenName(name, none, SeenName.Skip.NONE));
        }
        List<SeenName> sorted = new ArrayList<>(seen.values());
        sorted.sort(Comparator.comparing(SeenName::name));
        ScanStore.update(session, folder, ScanBlob.encode(sorted, names));
    }
}
