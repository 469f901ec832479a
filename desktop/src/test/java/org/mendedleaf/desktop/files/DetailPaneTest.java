package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** What stands above a comparison beside the line. */
class DetailPaneTest {

    @Test
    void whatIsTheSameOfBothIsSaidOnce() {
        assertThat(DetailPane.between("version 1", "version 12")).isEqualTo("version 1 → 12");
        assertThat(DetailPane.between("version 3.1", "what is in the folder"))
                .isEqualTo("version 3.1 → what is in the folder");
        assertThat(DetailPane.between("then", "now")).isEqualTo("then → now");
        assertThat(DetailPane.between("version 1", "version ")).isEqualTo("version 1 → version ");
    }
}
