package leveltally.practicebank;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.util.List;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.file.virtualfs.VirtualFileSystemFactory;
import org.apache.sshd.server.SshServer;
import org.apache.sshd.server.keyprovider.SimpleGeneratorHostKeyProvider;
import org.apache.sshd.sftp.server.SftpSubsystemFactory;

/** The bank's port: SFTP on loopback, for one company with one password. */
public final class BankDoor implements AutoCloseable {
    private static final String USER = "company";

    private final SshServer server;
    private final String password;
    private final String fingerprint;

    private BankDoor(SshServer server, String password, String fingerprint) {
        this.server = server;
        this.password = password;
        this.fingerprint = fingerprint;
    }

    /** Opens it on any free port; its key is made once and kept beside its data. */
    public static BankDoor open(PracticeBank bank, String password) {
        SshServer server = SshServer.setUpDefaultServer();
        try {
            Files.createDirectories(bank.desk());
            SimpleGeneratorHostKeyProvider keys =
                    new SimpleGeneratorHostKeyProvider(bank.desk().resolveSibling("host-key"));
            keys.setAlgorithm(KeyUtils.EC_ALGORITHM);
            keys.setKeySize(256);
            server.setHost("127.0.0.1");
            server.setPort(0);
            server.setKeyPairProvider(keys);
            server.setPasswordAuthenticator((user, typed, session) -> user.equals(USER) && typed.equals(password));
            server.setSubsystemFactories(List.of(new SftpSubsystemFactory()));
            server.setFileSystemFactory(new VirtualFileSystemFactory(bank.desk()));
            server.start();
            return new BankDoor(
                    server,
                    password,
                    KeyUtils.getFingerPrint(
                            keys.loadKeys(null).iterator().next().getPublic()));
        } catch (IOException closed) {
            throw new UncheckedIOException(closed);
        }
    }

    public int port() {
        return server.getPort();
    }

    public String user() {
        return USER;
    }

    public String password() {
        return password;
    }

    /** Its key as people compare it: {@code SHA256:…}. */
    public String fingerprint() {
        return fingerprint;
    }

    @Override
    public void close() {
        try {
            server.stop(true);
        } catch (IOException gone) {
            throw new UncheckedIOException(gone);
        }
    }
}
