package org.mendedleaf.core.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Locale;
import java.util.ResourceBundle;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.mendedleaf.core.words.Words;

/** What a place can be set to, and how it is written. */
class SettingTest {

    @ParameterizedTest
    @EnumSource(Setting.class)
    void eachIsReadAsItIsWrittenAndANewPlaceHasAValueThatItTakes(Setting setting) {
        assertThat(Setting.parse(setting.text())).isEqualTo(setting);
        assertThat(setting.check(setting.standard())).isEqualTo(setting.standard());
        assertThat(setting.text()).matches("[a-z]+(-[a-z]+)*");
    }

    @ParameterizedTest
    @EnumSource(Setting.class)
    void eachAndEachOfItsChoicesHasWordsInEveryLanguage(Setting setting) {
        for (Locale language : Words.LANGUAGES) {
            ResourceBundle words = ResourceBundle.getBundle("org.mendedleaf.core.words.messages", language);
            assertThat(words.getString("setting." + setting.text())).isNotBlank();
            for (String choice : setting.choices()) {
                assertThat(words.getString("setting." + setting.text() + "." + choice))
                        .isNotBlank();
                assertThat(words.getString("effect." + setting.text() + "." + choice))
                        .as("what %s does", choice)
                        .isNotBlank();
            }
        }
    }

    @ParameterizedTest
    @CsvSource({
        "KEEP_VERSIONS, 0, 1000000",
        "REMOVED_DAYS, 0, 1000000",
        "QUOTA_MB, 0, 1000000",
        "SNAPSHOT_KEEP, 1, 1000000"
    })
    void aNumberIsTakenFromItsLeastToItsMostAndNothingElse(Setting setting, int least, int most) {
        assertThat(setting.isNumber()).isTrue();
        assertThat(setting.check(String.valueOf(least))).isEqualTo(String.valueOf(least));
        assertThat(setting.check(String.valueOf(most))).isEqualTo(String.valueOf(most));
        for (String wrong :
                List.of("", "-1", "many", "1.5", " 3", String.valueOf(least - 1), String.valueOf(most + 1))) {
            assertThatThrownBy(() -> setting.check(wrong))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining(setting.text())
                    .hasMessageContaining("\"" + wrong + "\"")
                    .hasMessageContaining(String.format(Locale.ENGLISH, "%,d", most));
        }
    }

    @Test
    void whatIsNoChoiceIsRefusedWithThoseThereAre() {
        assertThatThrownBy(() -> Setting.VERSIONING.check("sometimes"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("versioning is one of off, on, paused, not \"sometimes\".");
        assertThatThrownBy(() -> Setting.parse("version"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("versioning, numbering, keep-versions");
    }

    @Test
    void aPlaceTakesOnlyWhatItsKindHas() {
        PlaceSettings settings = PlaceSettings.standard(List.of(Setting.VERSIONING, Setting.KEEP_VERSIONS));
        assertThat(settings.with(Setting.KEEP_VERSIONS, "12").number(Setting.KEEP_VERSIONS))
                .isEqualTo(12);
        assertThat(settings.get(Setting.QUOTA_MB)).isEqualTo("0");
        assertThatThrownBy(() -> settings.with(Setting.QUOTA_MB, "5"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("quota-mb")
                .hasMessageContaining("versioning, keep-versions");
    }

    @Test
    void runsThatWereKeptUntilSpaceIsNeededUnderTheFirstNameOfThatStillAre() {
        assertThat(Setting.BACKUP_KEEP.check("room")).isEqualTo("until-full");
        assertThat(Setting.BACKUP_KEEP.choices()).contains("until-full").doesNotContain("room");
        assertThatThrownBy(() -> Setting.COLLISION.check("room")).isInstanceOf(IllegalArgumentException.class);
    }
}
