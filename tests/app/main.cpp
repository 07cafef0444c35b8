#include <gtest/gtest.h>

#include <QApplication>
#include <QStandardPaths>
#if defined(__SANITIZE_ADDRESS__)
#include <sanitizer/lsan_interface.h>
#endif
#if defined(__SANITIZE_THREAD__)
#include <oneapi/tbb/global_control.h>
#endif

#include "app/base/theme.h"

int main(int argc, char** argv) {
    testing::InitGoogleTest(&argc, argv);
#if defined(__SANITIZE_THREAD__)
    // TBB is built without the sanitizer, which takes each of its hand-overs for a race and spends its time
    // on them: its loops run on one thread; our own threads are what is looked at.
    const tbb::global_control alone(tbb::global_control::max_allowed_parallelism, 1);
#endif
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    // Parts of the tests that run at once remember nothing of each other.
    QApplication::setApplicationName(QStringLiteral("ErdwerkTests") +
                                     qEnvironmentVariable("GTEST_SHARD_INDEX"));
    erdwerk::app::theme::apply(application);
    const int result = RUN_ALL_TESTS();
#if defined(__SANITIZE_ADDRESS__)
    // While the graphics drivers are loaded: what they keep is then told by their names.
    __lsan_do_leak_check();
#endif
    return result;
}
