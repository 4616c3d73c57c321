package leveltally.server.bankfiles;

import java.sql.PreparedStatement;
import java.sql.SQLException;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.StandardBankLayouts;
import org.flywaydb.core.api.MigrationVersion;
import org.flywaydb.core.api.migration.Context;
import org.flywaydb.core.api.migration.JavaMigration;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Keeps the layouts of what banks write to begin with; written here, because they are described in code. */
@Component
class ReadingLayoutsMigration implements JavaMigration {
    private final JsonMapper json;

    ReadingLayoutsMigration(JsonMapper json) {
        this.json = json;
    }

    @Override
    public MigrationVersion getVersion() {
        return MigrationVersion.fromVersion("25");
    }

    @Override
    public String getDescription() {
        return "layouts of what banks write";
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
        try (PreparedStatement add = context.getConnection()
                .prepareStatement("INSERT IGNORE INTO bank_file_layout (id, name, version_number, file_use, definition)"
                        + " VALUES (NEXT VALUE FOR row_seq, ?, 1, ?, ?)")) {
            for (Layout layout : StandardBankLayouts.read()) {
                add.setString(1, layout.name());
                add.setString(2, layout.use().name());
                add.setString(3, BankLayoutFile.write(layout, json));
                add.executeUpdate();
            }
        }
    }
}
