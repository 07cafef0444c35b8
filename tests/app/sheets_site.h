#pragma once
// The demo with its first sheet open, and what a hand does on it.

#include <QProcess>

#include "core/operations/sheets.h"
#include "support/sheets.h"
#include "window_test.h"

namespace erdwerk::app {

class SheetsSite : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        demo();
        sheet = named<objects::Sheet>("Plan of Plot Q-4");
        select(sheet);
        run("sheet-open");
        window->settle();
    }
    SheetCanvas* canvas() { return window->sheetPage()->canvas(); }
    const objects::Sheet& now() { return *doc().get<objects::Sheet>(sheet); }
    QPoint at(double x, double y) { return canvas()->toScreen(x, y).toPoint(); }
    void drag(QPoint from, QPoint to, bool release = true) {
        QTest::mousePress(canvas(), Qt::LeftButton, {}, from);
        for (int k = 1; k <= 4; ++k) {
            const QPointF p = QPointF(from) + QPointF(to - from) * k / 4;
            QMouseEvent move(QEvent::MouseMove, p, canvas()->mapToGlobal(p), Qt::NoButton, Qt::LeftButton,
                             Qt::NoModifier);
            QApplication::sendEvent(canvas(), &move);
        }
        if (release) QTest::mouseRelease(canvas(), Qt::LeftButton, {}, to);
    }
    QString path(const char* name) { return QString::fromStdString(folder / name); }
    static QString output(const QString& program, const QStringList& words) {
        QProcess process;
        process.start(program, words);
        EXPECT_TRUE(process.waitForFinished(60000)) << program.toStdString();
        return QString::fromUtf8(process.readAllStandardOutput());
    }
    ObjectId sheet;
};

}  // namespace erdwerk::app
