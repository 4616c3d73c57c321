package leveltally.server.exchange;

import java.io.IOException;
import java.nio.file.Path;
import leveltally.practicebank.BankDoor;
import leveltally.server.frame.Settings;
import org.springframework.stereotype.Component;

/** Opens the connection of a channel. */
@Component
class Carriers {
    private final StandInBank standIn;
    private final String folders;

    Carriers(StandInBank standIn, Settings settings) {
        this.standIn = standIn;
        this.folders = settings.bankFolders();
    }

    /** Whether this server has a folder for banks. */
    boolean hasFolders() {
        return !folders.isEmpty();
    }

    boolean canPractise() {
        return standIn.isThere();
    }

    Talk open(Channel channel) throws IOException {
        return switch (channel.kind()) {
            case FOLDER -> {
                if (folders.isEmpty()) {
                    throw new IOException("this server has no folder for banks; LEVELTALLY_BANK_FOLDERS names it");
                }
                yield new FolderTalk(Path.of(folders));
            }
            case SFTP ->
                SftpTalk.open(new SftpTalk.Address(
                        channel.host(), channel.port(), channel.user(), channel.secret(), channel.hostKey()));
            case PRACTICE -> {
                if (!standIn.isThere()) {
                    throw new IOException("the bank to practise on is there in the demo only");
                }
                standIn.bank().keep(channel.out().path());
                standIn.bank().keep(channel.in().path());
                BankDoor door = standIn.door();
                yield SftpTalk.open(new SftpTalk.Address(
                        "127.0.0.1", door.port(), door.user(), door.password(), door.fingerprint()));
            }
        };
    }
}
