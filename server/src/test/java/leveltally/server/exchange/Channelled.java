package leveltally.server.exchange;

import static leveltally.server.App.bean;
import static leveltally.server.App.ines;
import static leveltally.server.App.operations;

import java.util.List;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.people.Role;
import leveltally.server.App;
import org.jspecify.annotations.Nullable;

/** Ways for operations' files to travel, and back to what the demo has. */
final class Channelled {
    private static Channels.@Nullable WantedChannel first;

    private Channelled() {}

    static Channels.WantedChannel wanted(ChannelKind kind, int port, @Nullable String secret, String hostKey) {
        boolean far = kind == ChannelKind.SFTP;
        return new Channels.WantedChannel(
                kind,
                far ? "127.0.0.1" : "",
                port,
                far ? "company" : "",
                secret,
                hostKey,
                "in",
                "out",
                "Decisions, semicolons",
                List.of(
                        new Channels.RuleView("answer-*", "Answer, semicolons"),
                        new Channels.RuleView("paid-*.csv", "Paid checks, comma list"),
                        new Channels.RuleView("statement-*.csv", "Statement, semicolons, balance after each")),
                true,
                version());
    }

    /** What was made, whole. */
    static byte[] bytes(long file) {
        try (var content = bean(leveltally.server.bankfiles.BankFiles.class).open(file)) {
            return content.readAllBytes();
        } catch (java.io.IOException broken) {
            throw new java.io.UncheckedIOException(broken);
        }
    }

    private static long version() {
        Channels.ChannelView now = bean(Channels.class).view(ines(), operations());
        return now == null ? 0 : now.version();
    }

    static void by(ChannelKind kind, int port, @Nullable String secret, String hostKey) {
        Channels.ChannelView now = bean(Channels.class).view(ines(), operations());
        if (first == null && now != null) {
            first = new Channels.WantedChannel(
                    now.kind(), "", 0, "", null, "", now.out(), now.in(), now.decisions(), now.rules(), true, 0);
        }
        bean(Channels.class)
                .set(App.actor("joss", Role.ADMINISTRATOR), operations(), wanted(kind, port, secret, hostKey));
    }

    static void asItWas() {
        Channels.WantedChannel was = first;
        if (was != null) {
            bean(Channels.class)
                    .set(
                            App.actor("joss", Role.ADMINISTRATOR),
                            operations(),
                            new Channels.WantedChannel(
                                    was.kind(),
                                    "",
                                    0,
                                    "",
                                    null,
                                    "",
                                    was.out(),
                                    was.in(),
                                    was.decisions(),
                                    was.rules(),
                                    true,
                                    version()));
        }
    }
}
