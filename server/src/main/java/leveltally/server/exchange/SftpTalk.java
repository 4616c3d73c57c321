package leveltally.server.exchange;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalLong;
import java.util.concurrent.atomic.AtomicReference;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.NamedResource;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.util.security.SecurityUtils;
import org.apache.sshd.core.CoreModuleProperties;
import org.apache.sshd.sftp.SftpModuleProperties;
import org.apache.sshd.sftp.client.SftpClient;
import org.apache.sshd.sftp.client.SftpClientFactory;
import org.apache.sshd.sftp.common.SftpConstants;
import org.apache.sshd.sftp.common.SftpException;
import org.jspecify.annotations.Nullable;

/**
 * A bank's host by SFTP. It is spoken to only while it shows the key that was pinned: nothing is said to another one, no user
 * and no password. Whatever it does not answer within {@link #PATIENCE} ends the talk.
 */
final class SftpTalk implements Talk {
    private static final Duration PATIENCE = Duration.ofSeconds(15);

    private final SshClient client;
    private final ClientSession session;
    private final SftpClient files;

    private SftpTalk(SshClient client, ClientSession session, SftpClient files) {
        this.client = client;
        this.session = session;
        this.files = files;
    }

    /** Where and as whom. */
    record Address(
            String host, int port, String user, @Nullable String secret, String hostKey, Duration patience) {
        Address(String host, int port, String user, @Nullable String secret, String hostKey) {
            this(host, port, user, secret, hostKey, PATIENCE);
        }

        private boolean isPinned() {
            return !hostKey.isEmpty();
        }
    }

    /** @throws HostNotKnown when the host shows another key */
    static SftpTalk open(Address to) throws IOException {
        SshClient client = SshClient.setUpDefaultClient();
        AtomicReference<String> shown = new AtomicReference<>("");
        client.setServerKeyVerifier((session, address, key) -> {
            shown.set(KeyUtils.getFingerPrint(key));
            return shown.get().equals(to.hostKey());
        });
        CoreModuleProperties.NIO2_READ_TIMEOUT.set(client, to.patience());
        CoreModuleProperties.IDLE_TIMEOUT.set(client, to.patience());
        CoreModuleProperties.IO_CONNECT_TIMEOUT.set(client, to.patience());
        CoreModuleProperties.AUTH_TIMEOUT.set(client, to.patience());
        SftpModuleProperties.SFTP_CHANNEL_OPEN_TIMEOUT.set(client, to.patience());
        client.start();
        try {
            ClientSession session = client.connect(to.user(), to.host(), to.port())
                    .verify(to.patience())
                    .getSession();
            identify(session, to.secret());
            session.auth().verify(to.patience());
            return new SftpTalk(client, session, SftpClientFactory.instance().createSftpClient(session));
        } catch (IOException | RuntimeException failed) {
            client.close(true);
            String key = shown.get();
            if (!key.isEmpty() && !key.equals(to.hostKey())) {
                throw new HostNotKnown(
                        to.isPinned()
                                ? to.host() + " shows another key than the one that was pinned, " + key
                                        + ". Nothing was said to it. Ask the bank whether it changed its key; an"
                                        + " administrator pins the new one"
                                : to.host() + " shows the key " + key
                                        + ". Compare it with what the bank says, then pin it",
                        key);
            }
            throw failed instanceof IOException broken ? broken : new IOException(failed.getMessage(), failed);
        }
    }

    private static void identify(ClientSession session, @Nullable String secret) throws IOException {
        if (secret == null) {
            return;
        }
        if (!secret.contains("PRIVATE KEY")) {
            session.addPasswordIdentity(secret);
            return;
        }
        for (KeyPair pair : keys(secret)) {
            session.addPublicKeyIdentity(pair);
        }
    }

    /** @throws IOException when it is no private key without a passphrase */
    static Iterable<KeyPair> keys(String secret) throws IOException {
        try {
            Iterable<KeyPair> pairs = SecurityUtils.loadKeyPairIdentities(
                    null,
                    NamedResource.ofName("key"),
                    new ByteArrayInputStream(secret.getBytes(StandardCharsets.UTF_8)),
                    null);
            if (pairs == null || !pairs.iterator().hasNext()) {
                throw new IOException("the key cannot be read");
            }
            return pairs;
        } catch (GeneralSecurityException | RuntimeException unreadable) {
            throw new IOException("the key cannot be read: " + unreadable.getMessage(), unreadable);
        }
    }

    @Override
    public List<Lying> list(String folder) throws IOException {
        List<Lying> found = new ArrayList<>();
        for (SftpClient.DirEntry entry : files.readEntries(folder.isEmpty() ? "." : folder)) {
            SftpClient.Attributes about = entry.getAttributes();
            if (about.isRegularFile()) {
                found.add(new Lying(
                        entry.getFilename(),
                        about.getSize(),
                        about.getModifyTime() == null
                                ? Instant.EPOCH
                                : about.getModifyTime().toInstant()));
            }
        }
        return found;
    }

    @Override
    public OptionalLong size(String path) throws IOException {
        try {
            return OptionalLong.of(files.stat(path).getSize());
        } catch (SftpException none) {
            if (none.getStatus() == SftpConstants.SSH_FX_NO_SUCH_FILE) {
                return OptionalLong.empty();
            }
            throw none;
        }
    }

    @Override
    public byte[] read(String path, int most) throws IOException {
        try (InputStream from = open(path)) {
            return FolderTalk.atMost(from, most);
        }
    }

    @Override
    public InputStream open(String path) throws IOException {
        return files.read(path);
    }

    @Override
    public void write(String path, InputStream content) throws IOException {
        try (OutputStream to = files.write(
                path, SftpClient.OpenMode.Write, SftpClient.OpenMode.Create, SftpClient.OpenMode.Truncate)) {
            content.transferTo(to);
        }
    }

    @Override
    public void rename(String from, String to) throws IOException {
        files.rename(from, to);
    }

    @Override
    public void close() throws IOException {
        try {
            files.close();
            session.close(false).await(PATIENCE);
        } finally {
            client.close(true);
        }
    }
}
