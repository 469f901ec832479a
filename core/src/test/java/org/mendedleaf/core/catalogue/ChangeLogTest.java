package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.vault.VaultException;

class ChangeLogTest {

    private record Change(Op op, List<Object> values) {}

    private static List<Change> read(byte[] log) throws IOException {
        List<Change> found = new ArrayList<>();
        ChangeLog.read(
                log, (op, values) -> found.add(new Change(op, new ArrayList<>(java.util.Arrays.asList(values)))));
        return found;
    }

    @Property
    void changesAreReadAsTheyWereWritten(@ForAll List<Long> numbers, @ForAll List<String> texts, @ForAll byte[] bytes)
            throws IOException {
        ChangeLog log = new ChangeLog();
        for (long n : numbers) {
            log.add(Op.LINE_STATE, new Object[] {n, 0, null});
        }
        for (String text : texts) {
            log.add(Op.EXCLUSION, new Object[] {1, text});
        }
        log.add(Op.VERSION_SHA256, new Object[] {bytes, 1, 2});
        List<Change> found = read(log.drain());
        assertThat(found).hasSize(numbers.size() + texts.size() + 1);
        for (int i = 0; i < numbers.size(); i++) {
            assertThat(found.get(i).values()).containsExactly(numbers.get(i), 0L, null);
        }
        assertThat((byte[]) found.get(found.size() - 1).values().get(0)).isEqualTo(bytes);
        assertThat(log.isEmpty()).isTrue();
    }

    @Property
    void garbageIsRefusedOrReadButNeverMore(@ForAll byte[] garbage) {
        try {
            read(garbage);
        } catch (IOException e) {
            assertThat(e).isInstanceOf(VaultException.Damaged.class);
        }
    }

    @Test
    void aLogThatIsCutShortIsRefused() {
        ChangeLog log = new ChangeLog();
        log.add(Op.EXCLUSION, new Object[] {1, "a pattern of some length"});
        byte[] whole = log.drain();
        assertThatThrownBy(() -> read(java.util.Arrays.copyOf(whole, whole.length - 3)))
                .isInstanceOf(VaultException.Damaged.class);
    }

    @Test
    void codesAreNeverUsedTwice() {
        Set<Integer> codes = new HashSet<>();
        for (Op op : Op.values()) {
            assertThat(codes.add(op.code())).as("code of %s", op).isTrue();
        }
    }
}
