package leveltally.server.bankfiles;

import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.List;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.StandardBankLayouts;
import org.flywaydb.core.api.MigrationVersion;
import org.flywaydb.core.api.migration.Context;
import org.flywaydb.core.api.migration.JavaMigration;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.databind.json.JsonMapper;

/** Keeps layouts to begin with; written here, because they are described in code. */
final class LayoutsMigration implements JavaMigration {
    private static final int FIRST = 23;

    private final int version;
    private final String description;
    private final List<Layout> layouts;
    private final JsonMapper json;

    private LayoutsMigration(int version, String description, List<Layout> layouts, JsonMapper json) {
        this.version = version;
        this.description = description;
        this.layouts = layouts;
        this.json = json;
    }

    /** Each step of it, in its place among the others. */
    @Configuration
    static class Steps {
        @Bean
        JavaMigration layoutsToldMigration(JsonMapper json) {
            return new LayoutsMigration(FIRST, "layouts of bank files", StandardBankLayouts.all(), json);
        }

        @Bean
        JavaMigration layoutsReadMigration(JsonMapper json) {
            return new LayoutsMigration(25, "layouts of what banks write", StandardBankLayouts.read(), json);
        }

        @Bean
        JavaMigration layoutsOfAnswersMigration(JsonMapper json) {
            return new LayoutsMigration(28, "layouts of answers and decisions", StandardBankLayouts.answers(), json);
        }
    }

    @Override
    public MigrationVersion getVersion() {
        return MigrationVersion.fromVersion(String.valueOf(version));
    }

    @Override
    public String getDescription() {
        return description;
    }

    @Override
    public @Nullable Integer getChecksum() {
        return null;
    }

    @Override
    public boolean canExecuteInTransaction() {
        return true;
    }

    @Override
    public void migrate(Context context) throws SQLException {
        // the first were kept before a layout said what it is for
        boolean says = version > FIRST;
        try (PreparedStatement add = context.getConnection()
                .prepareStatement("INSERT IGNORE INTO bank_file_layout (id, name, version_number, definition"
                        + (says ? ", file_use" : "") + ") VALUES (NEXT VALUE FOR row_seq, ?, 1, ?"
                        + (says ? ", ?)" : ")"))) {
            for (Layout layout : layouts) {
                add.setString(1, layout.name());
                add.setString(2, BankLayoutFile.write(layout, json));
                if (says) {
                    add.setString(3, layout.use().name());
                }
                add.executeUpdate();
            }
        }
    }
}
