package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import org.junit.jupiter.api.Test;

class SqliteDriverTest {

    @Test
    void aRowThatIsPutInCostsOneStatementAndNotASecondOneForItsNumber() throws Exception {
        try (Connection db = SqliteDriver.connect("jdbc:sqlite::memory:")) {
            db.createStatement().execute("CREATE TABLE t (id INTEGER PRIMARY KEY, a TEXT)");
            try (PreparedStatement put = db.prepareStatement("INSERT INTO t (id, a) VALUES (7, 'x')")) {
                assertThat(put.executeUpdate()).isOne();
                try (ResultSet numbers = put.getGeneratedKeys()) {
                    assertThat(numbers.next()).as("nobody asked").isFalse();
                }
            }
            try (ResultSet row = db.createStatement().executeQuery("SELECT last_insert_rowid()")) {
                assertThat(row.getLong(1)).as("whoever wants to know it asks").isEqualTo(7);
            }
        }
    }
}
