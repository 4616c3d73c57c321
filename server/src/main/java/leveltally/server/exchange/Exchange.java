package leveltally.server.exchange;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.clearing.DecisionFiles;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** All that travels between the company and the bank of an account. */
@Service
public class Exchange {
    private final JdbcClient jdbc;
    private final Channels channels;
    private final Outgoing outgoing;
    private final Incoming incoming;
    private final Courier courier;
    private final DecisionFiles decisions;

    Exchange(
            JdbcClient jdbc,
            Channels channels,
            Outgoing outgoing,
            Incoming incoming,
            Courier courier,
            DecisionFiles decisions) {
        this.jdbc = jdbc;
        this.channels = channels;
        this.outgoing = outgoing;
        this.incoming = incoming;
        this.courier = courier;
        this.decisions = decisions;
    }

    /**
     * @param by how its files travel, in words; empty where people carry them
     * @param decisions the layout in which the bank is told what is paid and what returned; empty for none
     * @param untold decisions it has not heard
     * @param waiting how many files of the bank wait to be read
     * @param trouble why the bank's folder could not be read the last time
     */
    public record ExchangeView(
            String by,
            boolean practice,
            @Nullable Instant lookedAt,
            String trouble,
            String decisions,
            int untold,
            int waiting,
            List<Outgoing.SendingView> sendings) {}

    private record Looked(@Nullable Instant at, String trouble) {}

    public ExchangeView of(Actor by, BankAccountId account) {
        by.mayDo(Deed.READ);
        Looked looked = jdbc.sql("SELECT looked_at, trouble FROM bank_channel WHERE bank_account_id = ?")
                .param(account.value())
                .query((r, n) -> {
                    Timestamp at = r.getTimestamp("looked_at");
                    return new Looked(at == null ? null : at.toInstant(), r.getString("trouble"));
                })
                .optional()
                .orElse(new Looked(null, ""));
        var channel = channels.inUse(account);
        return new ExchangeView(
                channel.map(Channel::inWords).orElse(""),
                channel.filter(one -> one.kind() == ChannelKind.PRACTICE).isPresent(),
                looked.at(),
                looked.trouble(),
                channel.map(Channel::decisions).orElse(""),
                channel.map(Channel::decisionsSince)
                        .map(since -> decisions.waiting(account, since))
                        .orElse(0),
                incoming.waiting(account),
                outgoing.of(by, account));
    }

    /** Tells the bank what was decided and it has not heard; the file goes on its way at once. */
    @Transactional
    public long tellDecisions(Actor by, BankAccountId account) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        Channel channel = channels.get(account);
        Instant since = channel.decisionsSince();
        if (since == null) {
            throw Refusal.conflict(
                    "no-layout",
                    "People tell this bank what is paid and what returned. An administrator chooses a layout.");
        }
        long file = decisions.make(by, account, channel.decisions(), since);
        outgoing.send(by, file);
        return file;
    }

    /** Looks at once whether something lies there. */
    public int look(Actor by, BankAccountId account, Instant now) {
        by.mayDo(Deed.RECORD_CLEARING);
        channels.get(account);
        return courier.look(account, now);
    }
}
