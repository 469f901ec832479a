package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.UniqueElements;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.disk.DiskEntry;

class ScanBlobTest {

    private static List<SeenName> seen(List<String> names, long base) {
        List<SeenName> all = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            DiskEntry.Type type = i % 5 == 0 ? DiskEntry.Type.LINK : DiskEntry.Type.FILE;
            SeenName.Skip skip = i % 7 == 6 ? new SeenName.Skip(1, "*.iso") : SeenName.Skip.NONE;
            all.add(new SeenName(names.get(i), new DiskEntry(type, i, base + i, 0644, i * 31), skip));
        }
        all.sort(Comparator.comparing(SeenName::name));
        return all;
    }

    @Property
    void whatWasSeenIsReadAgain(@ForAll @UniqueElements List<String> names, @ForAll long base) {
        List<SeenName> all = seen(names, base);
        Map<String, SeenName> again = ScanBlob.decode(ScanBlob.encode(all, Set.of()));
        for (SeenName s : all) {
            SeenName found = again.get(new String(
                    s.name().getBytes(java.nio.charset.StandardCharsets.UTF_8),
                    java.nio.charset.StandardCharsets.UTF_8));
            assertThat(found).isNotNull();
            assertThat(found.skip()).isEqualTo(s.skip());
            if (s.isKept() && found.name().equals(s.name())) {
                assertThat(found.entry()).isEqualTo(s.entry());
            }
        }
    }

    @Property
    void garbageGivesNothingAndNoError(@ForAll byte[] garbage) {
        assertThat(ScanBlob.decode(garbage)).isNotNull();
    }

    @Test
    void whatIsNotSettledNeverLooksTheSame() {
        List<SeenName> all = seen(List.of("a", "b"), 5);
        byte[] settled = ScanBlob.encode(all, Set.of());
        byte[] unsettled = ScanBlob.encode(all, Set.of("b"));
        assertThat(unsettled).isNotEqualTo(settled);
        assertThat(ScanBlob.decode(unsettled)
                        .get("b")
                        .entry()
                        .looksSame(all.get(1).entry()))
                .isFalse();
    }
}
