#pragma once
// Tables: survey points, and the courses and description of a parcel.

#include <QComboBox>
#include <QPlainTextEdit>
#include <QStackedWidget>
#include <QTableView>
#include <QTableWidget>
#include <QWidget>

#include "app/base/session.h"
#include "app/bench/bench_page.h"

namespace erdwerk::app {

class PointModel;

class TablesPage : public BenchPage {
    Q_OBJECT
public:
    explicit TablesPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTableView* points() { return points_; }
    [[nodiscard]] QPlainTextEdit* description() { return description_; }

private:
    QWidget* buildPoints();
    QWidget* buildCourses();
    QWidget* buildBands();
    /// Shows the table of what is selected.
    void follow();
    void refresh();
    void showBands(const derive::BandTable& table);

    Session& session_;
    QComboBox* choice_;
    QStackedWidget* stack_;
    QTableView* points_;
    PointModel* model_;
    QTableWidget* courses_;
    QTableWidget* bands_;
    QPlainTextEdit* description_;
};

}  // namespace erdwerk::app
