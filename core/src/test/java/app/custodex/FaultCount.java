package app.custodex;

import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/** Says at the end of the test report how many tests of each fault were survived. */
public final class FaultCount implements TestExecutionListener {
    private final Map<Fault.Of, Integer> survived = new EnumMap<>(Fault.Of.class);

    @Override
    public void executionFinished(TestIdentifier test, TestExecutionResult result) {
        if (test.isTest() && result.getStatus() == TestExecutionResult.Status.SUCCESSFUL) {
            test.getSource()
                    .filter(MethodSource.class::isInstance)
                    .map(source -> ((MethodSource) source).getJavaMethod().getAnnotation(Fault.class))
                    .ifPresent(fault -> survived.merge(fault.value(), 1, Integer::sum));
        }
    }

    @Override
    public void testPlanExecutionFinished(TestPlan plan) {
        if (!survived.isEmpty()) {
            System.out.println("Faults survived: "
                    + survived.entrySet().stream()
                            .map(fault -> fault.getKey()
                                            .name()
                                            .toLowerCase(Locale.ROOT)
                                            .replace('_', ' ') + " " + fault.getValue())
                            .collect(Collectors.joining(", ")));
        }
    }
}
