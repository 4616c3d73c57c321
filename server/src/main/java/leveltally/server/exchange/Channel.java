package leveltally.server.exchange;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.exchange.FilePattern;
import leveltally.core.exchange.RemoteFolder;
import leveltally.core.exchange.StandardFile;
import leveltally.core.ledger.BankAccountId;
import org.jspecify.annotations.Nullable;

/**
 * How files of one account travel.
 *
 * @param host where they go by SFTP; {@code hostKey} its pinned fingerprint, empty while nobody pinned one
 * @param secret a password or a private key, unsealed
 * @param decisions the name of the layout by which the bank is told what is paid and what returned; empty for none
 * @param decisionsSince what was decided before is not told by file: people told it
 */
record Channel(
        BankAccountId account,
        ChannelKind kind,
        String host,
        int port,
        String user,
        @Nullable String secret,
        String hostKey,
        RemoteFolder out,
        RemoteFolder in,
        String decisions,
        @Nullable Instant decisionsSince,
        List<Rule> rules,
        boolean inUse) {

    /** What files of such names are: the name of a layout or of a standard; {@code layout} null for a statement by the standard. */
    record Rule(FilePattern pattern, @Nullable String layout) {
        /** What they are where a standard says it, and no layout of ours. */
        Optional<StandardFile> standard() {
            return layout == null ? Optional.of(StandardFile.STATEMENT) : StandardFile.named(layout);
        }

        /** Whether they speak of payments we made. */
        boolean isOfPayments() {
            return standard().filter(StandardFile::isOfPayments).isPresent();
        }
    }

    /** Where its files go, in words. */
    String inWords() {
        return kind == ChannelKind.SFTP ? "SFTP to " + user + "@" + host + ":" + port : kind.words();
    }
}
