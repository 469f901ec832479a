package org.mendedleaf.core.systems.wire;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.vault.Digest;

/** Keys by which repetitions are known, tags by which files are, and uploads that carry them. */
final class RequestKeys {

    private RequestKeys() {}

    static String fresh() {
        return UUID.randomUUID().toString();
    }

    /** Changes when anything that is said of the points does. */
    static String tag(List<OutsideSystem.Point> points) {
        var sha = Digest.sha256();
        for (OutsideSystem.Point p : points) {
            String text = p.id() + '\n' + p.removal() + '\n' + p.label() + '\n' + p.note() + '\n' + p.expires() + '\n';
            sha.update(text.getBytes(StandardCharsets.UTF_8));
        }
        return Digest.of(sha.digest()).hex().substring(0, 32);
    }

    static Http.Call upload(String path, OutsideSystem.Put put) {
        Http.Call call = Http.Call.of("PUT", path)
                .with(put.bytes())
                .key(put.key())
                .with("Repr-Digest", Http.reprDigest(put.sha256()))
                .with("X-Modified", put.modified().toString());
        return put.note().isEmpty() ? call : call.with("X-Note", Http.encodePart(put.note()));
    }
}
