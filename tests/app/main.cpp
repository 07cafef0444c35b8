#include <gtest/gtest.h>

#include <QApplication>
#include <QStandardPaths>

#include "app/base/theme.h"

int main(int argc, char** argv) {
    testing::InitGoogleTest(&argc, argv);
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("ErdwerkTests"));
    erdwerk::app::theme::apply(application);
    return RUN_ALL_TESTS();
}
