package org.mendedleaf.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ExclusionsTest {

    @ParameterizedTest
    @CsvSource({
        "*.iso, '', disk.iso, false, true",
        "*.iso, deep/down, disk.iso, false, true",
        "*.iso, '', disk.iso.txt, false, false",
        "build/, '', build, true, true",
        "build/, '', build, false, false",
        "build/, a/b, build, true, true",
        "Archive/2019/**, Archive/2019, a.txt, false, true",
        "Archive/2019/**, Archive/2019/x, a.txt, false, true",
        "Archive/2019/**, Archive/2020, a.txt, false, false",
        "/top.txt, '', top.txt, false, true",
        "/top.txt, sub, top.txt, false, false",
        "'{a,b}.txt', '', b.txt, false, true",
    })
    void patternsFitAsDescribed(String pattern, String folder, String name, boolean isFolder, boolean out) {
        assertThat(new Exclusions(List.of(pattern)).find(folder, name, isFolder).isPresent())
                .isEqualTo(out);
    }

    @Test
    void lockAndTemporaryFilesOfOfficeProgramsAreAlwaysLeftOut() {
        Exclusions none = new Exclusions(List.of());
        assertThat(List.of("~$a.docx", ".~lock.a.odt#", "~WRL0003.tmp", "x.tmp", ".a.txt.swp", "film.crdownload"))
                .allMatch(name -> none.find("", name, false).isPresent());
        assertThat(List.of("a.docx", "lock.odt", "tmp", "a.bak"))
                .noneMatch(name -> none.find("", name, false).isPresent());
    }

    @Test
    void aPatternThatCannotBeReadIsSaidInWords() {
        assertThatThrownBy(() -> Exclusions.check("[abc"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("[abc");
        assertThatThrownBy(() -> Exclusions.check("/")).isInstanceOf(IllegalArgumentException.class);
    }
}
