package leveltally.server.people;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.SequenceGenerator;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.HashSet;
import java.util.Set;
import leveltally.core.people.Role;
import org.jspecify.annotations.Nullable;

@Entity
@Table(name = "person")
class PersonEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String signIn;
    String name;
    String email;
    String passwordHash;

    /** When the password was set; null before that was kept. */
    @Nullable
    Instant passwordAt;

    /** Somebody else set the password, so it is changed at the next sign-in. */
    boolean mustChangePassword;

    boolean enabled;
    boolean demo;

    @ElementCollection(fetch = FetchType.EAGER)
    @CollectionTable(name = "person_role", joinColumns = @JoinColumn(name = "person_id"))
    @Column(name = "role")
    @Enumerated(EnumType.STRING)
    Set<Role> roles = new HashSet<>();

    @Version
    long version;
}
