package leveltally.server.exchange;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.exchange.FilePattern;
import leveltally.core.exchange.RemoteFolder;
import leveltally.core.ledger.BankAccountId;
import leveltally.server.frame.Seal;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The channels as they are kept, their secrets sealed. */
@Component
class ChannelRows {
    private static final String FIND = """
            SELECT bank_account_id, kind, host, port, user_name, secret_sealed, host_key, folder_out, folder_in, decisions, decisions_since, in_use
            FROM bank_channel""";

    private final JdbcClient jdbc;
    private final Seal seal;

    ChannelRows(JdbcClient jdbc, Seal seal) {
        this.jdbc = jdbc;
        this.seal = seal;
    }

    Optional<Channel> find(BankAccountId account) {
        List<Channel.Rule> rules = jdbc.sql(
                        "SELECT pattern, layout FROM bank_channel_rule WHERE bank_account_id = ? ORDER BY position")
                .param(account.value())
                .query((r, n) -> new Channel.Rule(new FilePattern(r.getString("pattern")), r.getString("layout")))
                .list();
        return jdbc.sql(FIND + " WHERE bank_account_id = ?")
                .param(account.value())
                .query((r, n) -> new Channel(
                        new BankAccountId(r.getLong("bank_account_id")),
                        ChannelKind.valueOf(r.getString("kind")),
                        r.getString("host"),
                        r.getInt("port"),
                        r.getString("user_name"),
                        r.getString("secret_sealed") == null ? null : seal.open(r.getString("secret_sealed")),
                        r.getString("host_key"),
                        new RemoteFolder(r.getString("folder_out")),
                        new RemoteFolder(r.getString("folder_in")),
                        r.getString("decisions"),
                        since(r.getTimestamp("decisions_since")),
                        rules,
                        r.getBoolean("in_use")))
                .optional();
    }

    private static @Nullable Instant since(@Nullable Timestamp at) {
        return at == null ? null : at.toInstant();
    }

    private static @Nullable Timestamp since(@Nullable Instant at) {
        return at == null ? null : Timestamp.from(at);
    }

    /** Accounts whose files travel so. */
    List<BankAccountId> inUse(Set<ChannelKind> kinds) {
        return jdbc
                .sql(
                        "SELECT bank_account_id FROM bank_channel WHERE in_use AND kind IN (:kinds) ORDER BY bank_account_id")
                .param("kinds", kinds.stream().map(ChannelKind::name).toList())
                .query(Long.class)
                .list()
                .stream()
                .map(BankAccountId::new)
                .toList();
    }

    /** 0 where nobody said how its files travel. */
    long version(BankAccountId account) {
        return jdbc.sql("SELECT version FROM bank_channel WHERE bank_account_id = ?")
                .param(account.value())
                .query(Long.class)
                .optional()
                .orElse(0L);
    }

    void put(Channel channel, boolean isThere, long version) {
        List<Object> values = new ArrayList<>(Arrays.asList(
                channel.kind().name(),
                channel.host(),
                channel.port(),
                channel.user(),
                channel.secret() == null ? null : seal.seal(channel.secret()),
                channel.hostKey(),
                channel.out().path(),
                channel.in().path(),
                channel.decisions(),
                since(channel.decisionsSince()),
                channel.inUse(),
                version,
                channel.account().value()));
        jdbc.sql(
                        isThere
                                ? "UPDATE bank_channel SET kind = ?, host = ?, port = ?, user_name = ?, secret_sealed = ?,"
                                        + " host_key = ?, folder_out = ?, folder_in = ?, decisions = ?, decisions_since = ?, in_use = ?, version = ?,"
                                        + " trouble = '' WHERE bank_account_id = ?"
                                : "INSERT INTO bank_channel (kind, host, port, user_name, secret_sealed, host_key, folder_out,"
                                        + " folder_in, decisions, decisions_since, in_use, version, bank_account_id, trouble)"
                                        + " VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, '')")
                .params(values)
                .update();
        jdbc.sql("DELETE FROM bank_channel_rule WHERE bank_account_id = ?")
                .param(channel.account().value())
                .update();
        for (int i = 0; i < channel.rules().size(); i++) {
            Channel.Rule rule = channel.rules().get(i);
            jdbc.sql("INSERT INTO bank_channel_rule (bank_account_id, position, pattern, layout) VALUES (?, ?, ?, ?)")
                    .params(Arrays.asList(
                            channel.account().value(), i + 1, rule.pattern().text(), rule.layout()))
                    .update();
        }
    }
}
