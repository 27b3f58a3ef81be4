package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaCodeUnit;
import com.tngtech.archunit.core.domain.JavaField;
import com.tngtech.archunit.core.domain.JavaMethod;
import com.tngtech.archunit.core.domain.JavaModifier;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.OneToMany;
import java.io.IOException;
import java.lang.annotation.Annotation;
import java.lang.reflect.RecordComponent;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.hibernate.annotations.Fetch;
import org.hibernate.annotations.FetchMode;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.modulith.core.ApplicationModules;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.RestController;
import org.testng.annotations.Test;

/** Rules that hold for the whole server, checked on its classes and files. */
public class StructureTest {
    private static final long MOST_FILES = 30;
    private static final int MOST_LINES = 350;
    private static final int MOST_COLLABORATORS = 8;

    private static final JavaClasses CLASSES = new ClassFileImporter()
            .withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("org.mossbank.server");

    @Test
    public void modulesKeepTheirBoundaries() {
        ApplicationModules.of(MossbankApplication.class).verify();
    }

    @Test
    public void everyServiceMethodSaysWhoMayCallIt() {
        List<String> open = CLASSES.stream()
                .filter(c -> c.isAnnotatedWith(Service.class))
                .flatMap(c -> c.getMethods().stream())
                .filter(StructureTest::isCallable)
                .filter(m -> !m.isAnnotatedWith(PreAuthorize.class) && !m.isAnnotatedWith(SystemOnly.class))
                .map(JavaMethod::getFullName)
                .toList();
        assertThat(open).isEmpty();
    }

    /** Written behind the dot of a type within another it belongs to the type alone, and nobody looks at it. */
    @Test
    public void whatIsAskedOfAComponentIsAskedOfItAndNotOfItsType() {
        List<String> unheard = CLASSES.stream()
                .map(JavaClass::reflect)
                .filter(Class::isRecord)
                .filter(c -> !c.isAnnotationPresent(TableForm.class))
                .flatMap(c -> Stream.of(c.getRecordComponents()))
                .filter(c -> Stream.of(c.getAnnotatedType().getAnnotations())
                        .filter(a -> a.annotationType().getName().startsWith("jakarta.validation"))
                        .anyMatch(a -> !c.getAccessor().isAnnotationPresent(a.annotationType())
                                && !isOnField(c, a.annotationType())))
                .map(c -> c.getDeclaringRecord().getName() + "." + c.getName())
                .toList();
        assertThat(unheard).isEmpty();
    }

    private static boolean isOnField(RecordComponent component, Class<? extends Annotation> sort) {
        try {
            return component
                    .getDeclaringRecord()
                    .getDeclaredField(component.getName())
                    .isAnnotationPresent(sort);
        } catch (NoSuchFieldException e) {
            throw new AssertionError(e);
        }
    }

    private static boolean isCallable(JavaMethod method) {
        return !method.getModifiers().contains(JavaModifier.PRIVATE)
                && !method.getModifiers().contains(JavaModifier.STATIC)
                && !method.getModifiers().contains(JavaModifier.SYNTHETIC);
    }

    @Test
    public void noControllerReachesWhatChecksNoUser() {
        List<String> calls = CLASSES.stream()
                .filter(c -> c.isAnnotatedWith(RestController.class))
                .flatMap(c -> c.getMethodCallsFromSelf().stream())
                .filter(call -> call.getTarget()
                        .resolveMember()
                        .map(m -> m.isAnnotatedWith(SystemOnly.class))
                        .orElse(false))
                .map(Object::toString)
                .toList();
        assertThat(calls).isEmpty();
    }

    /** A transaction beside another holds a second connection: a pool whose users wait for each other stands still. */
    @Test
    public void noTransactionStandsBesideAnother() {
        List<String> second = CLASSES.stream()
                .flatMap(c -> c.getMethods().stream())
                .filter(m -> m.tryGetAnnotationOfType(Transactional.class)
                        .map(t -> t.propagation() == Propagation.REQUIRES_NEW)
                        .orElse(false))
                .map(JavaMethod::getFullName)
                .toList();
        assertThat(second).isEmpty();
    }

    /** By batches a list of many rows would ask again and again. */
    @Test
    public void whatHangsOnManyRowsIsAskedForOnce() {
        List<String> byBatches = CLASSES.stream()
                .flatMap(c -> c.getFields().stream())
                .filter(f -> f.isAnnotatedWith(ElementCollection.class) || f.isAnnotatedWith(OneToMany.class))
                .filter(f -> f.tryGetAnnotationOfType(Fetch.class)
                        .map(fetch -> fetch.value() != FetchMode.SUBSELECT)
                        .orElse(true))
                .map(JavaField::getFullName)
                .toList();
        assertThat(byBatches).isEmpty();
    }

    /**
     * In the package that other modules see. Where a module has packages of its own, these see each other's entities; that no
     * other module does is what {@link ApplicationModules#verify} holds.
     */
    @Test
    public void whatOthersNeedNotSeeIsPackagePrivate() {
        List<String> open = CLASSES.stream()
                .filter(c -> c.isAnnotatedWith(RestController.class)
                        || c.isAnnotatedWith(jakarta.persistence.Entity.class)
                        || c.getSimpleName().endsWith("Repository"))
                .filter(c -> c.getModifiers().contains(JavaModifier.PUBLIC))
                .filter(c -> !c.getPackageName().matches("org\\.mossbank\\.server\\.\\w+\\.\\w+"))
                .map(JavaClass::getName)
                .toList();
        assertThat(open).isEmpty();
    }

    /** Who has left may have no name in a study: whatever shows one asks the study, and only what is no study's asks elsewhere. */
    @Test
    public void whatShowsNamesAsksTheStudy() {
        Set<String> beyondStudies = Set.of("account", "administration", "mail", "provider", "study");
        List<String> calls = CLASSES.stream()
                .filter(c -> !beyondStudies.contains(module(c)))
                // Who brings a study in, who begins with the demo, and a letter to somebody by their own name.
                .filter(c -> !Set.of("ArchiveIntake", "KnownArchives", "DemoService", "SheetLetters")
                        .contains(c.getSimpleName()))
                .flatMap(c -> c.getMethodCallsFromSelf().stream())
                .filter(call -> call.getTargetOwner().isEquivalentTo(Accounts.class)
                        && call.getTarget().getName().equals("byId"))
                .map(Object::toString)
                .toList();
        assertThat(calls).isEmpty();
    }

    /** A bare UUID in another module's hands could be anybody's. */
    @Test
    public void idsThatCrossModulesHaveTypesOfTheirOwn() {
        List<String> bare = CLASSES.stream()
                .flatMap(c -> c.getCodeUnitCallsFromSelf().stream())
                .filter(call -> !module(call.getOriginOwner()).equals(module(call.getTargetOwner())))
                .filter(call -> module(call.getTargetOwner()).matches("(?!ids$)\\w+"))
                .flatMap(call -> call.getTarget().resolveMember().stream())
                .filter(unit -> Stream.concat(Stream.of(unit.getReturnType()), unit.getParameterTypes().stream())
                        .flatMap(type -> type.getAllInvolvedRawTypes().stream())
                        .anyMatch(type -> type.isEquivalentTo(UUID.class)))
                .map(JavaCodeUnit::getFullName)
                .distinct()
                .toList();
        assertThat(bare).isEmpty();
    }

    /** Whoever needs many others does several things. */
    @Test
    public void nothingNeedsManyOthers() {
        List<String> many = CLASSES.stream()
                .filter(c -> c.isMetaAnnotatedWith(Component.class))
                .flatMap(c -> c.getConstructors().stream())
                .filter(c -> c.getRawParameterTypes().size() > MOST_COLLABORATORS)
                .map(JavaCodeUnit::getFullName)
                .toList();
        assertThat(many).isEmpty();
    }

    /** The module of a class of ours; empty for all others. */
    private static String module(JavaClass type) {
        String name = type.getPackageName();
        String root = "org.mossbank.server.";
        return name.startsWith(root) ? name.substring(root.length()).split("\\.", 2)[0] : "";
    }

    @Test
    public void everyPackageIsNullMarkedAndSaysWhatItIs() throws IOException {
        for (String tree : new String[] {"src/main/java", "../core/src/main/java"}) {
            try (Stream<Path> files = Files.walk(Path.of(tree))) {
                for (Path file :
                        files.filter(f -> f.toString().endsWith(".java")).toList()) {
                    String info = Files.readString(file.resolveSibling("package-info.java"));
                    assertThat(info).as(file.toString()).contains("@NullMarked").startsWith("/**");
                }
            }
        }
    }

    /** Somebody who opens a folder must be able to see what is in it. */
    @Test
    public void noPackageAndNoFileIsTooLarge() throws IOException {
        for (String tree : new String[] {"src/main/java", "../core/src/main/java", "../standin/src/main/java"}) {
            try (Stream<Path> all = Files.walk(Path.of(tree))) {
                List<Path> files =
                        all.filter(f -> f.toString().endsWith(".java")).toList();
                assertThat(files.stream().collect(Collectors.groupingBy(Path::getParent, Collectors.counting())))
                        .allSatisfy((folder, count) ->
                                assertThat(count).as("%s", folder).isLessThanOrEqualTo(MOST_FILES));
                for (Path file : files) {
                    assertThat(Files.readAllLines(file)).as(file.toString()).hasSizeLessThanOrEqualTo(MOST_LINES);
                }
            }
        }
    }

    @Test
    public void everyProblemHasItsPage() {
        for (ProblemType type : ProblemType.values()) {
            assertThat(Path.of("../docs/problems", type.slug() + ".md")).exists();
        }
    }

    /** What a rater's browser gets is built from types that cannot hold what would give a candidate away. */
    @Test
    public void typesForRatersHaveNoRoomForCandidates() {
        List<String> telling = CLASSES.stream()
                .filter(c -> c.getName().startsWith("org.mossbank.server.grading.sheet.Sheet")
                        || c.getSimpleName().equals("AnswerText"))
                .flatMap(c -> c.getFields().stream())
                .filter(
                        f -> f.getName()
                                .matches(
                                        "candidate.*|.*[cC]ost|.*[tT]okens?|.*Ms|price.*|attempt|key|version|model.*|settings|measures"))
                .map(f -> f.getFullName())
                .toList();
        assertThat(telling).isEmpty();
    }
}
