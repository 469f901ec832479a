package org.mendedleaf.cli.keep;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.retention.SpaceReport;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;

/** A thinning, planned or done, as data. */
final class ThinJson {

    private ThinJson() {}

    /** What goes and what that frees; once it is done, when it is forgotten. */
    static Map<String, Object> of(ThinPlan p, Optional<Thinning.Done> done, SpaceReport space) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("versions", p.versions());
        map.put("files", p.files().size());
        map.put("bytes", p.bytes());
        map.put("freedBytes", p.freedBytes());
        map.put("warnings", p.warnings());
        map.put("done", done.isPresent());
        done.ifPresent(d -> {
            map.put("letGo", d.versions());
            map.put("kept", d.kept());
            map.put("due", d.due().toString());
            map.put("actions", d.actions());
        });
        map.put("inUse", space.inUse());
        map.put("waiting", space.waiting());
        map.put("unused", space.unused());
        map.put("bookkeeping", space.bookkeeping());
        map.put("free", space.free());
        return map;
    }
}
