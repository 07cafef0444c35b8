#pragma once
// Grades: the selected 3D line as long-section and as table, both editable.

#include <QLabel>
#include <QTableWidget>
#include <QWidget>

#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "app/bench/grades_bar.h"
#include "app/section/section_view.h"

namespace erdwerk::app {

class GradesPage : public BenchPage {
    Q_OBJECT
public:
    explicit GradesPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] SectionView* section() { return section_; }
    /// What is done to several rows at once; shown while several are selected.
    [[nodiscard]] GradesBar* bar() { return bar_; }

private:
    void connectParts();
    void chooseColumns(QPoint at);
    void showColumns();
    void refresh();
    void fillSection(const linework::ResolvedLine& resolved, const linework::Line3D& line);
    void fillTable(const linework::ResolvedLine& resolved, const linework::Line3D& line);
    void fillRow(int row, const linework::ResolvedLine& resolved, const linework::Line3D& line);
    /// What typing into a cell does; nothing where nothing can be typed.
    [[nodiscard]] std::optional<document::Edit> cellEdit(int row, int column, const QString& text) const;
    void edited(int row, int column);
    void moveHandle(std::size_t handle, double distance, double height, bool preview);
    void moveStretch(std::size_t handle, double rise, bool preview);
    void pullCurve(std::size_t handle, double length, bool preview);
    void showSelectedRows();
    void showHover();
    [[nodiscard]] const linework::ResolvedLine* resolved() const;
    /// Rows stand in the order of the line.
    [[nodiscard]] std::size_t vertexOf(int row) const;
    [[nodiscard]] std::optional<int> rowOf(std::size_t vertex) const;

    Session& session_;
    std::optional<ObjectId> line_;
    SectionView* section_;
    QTableWidget* table_;
    GradesBar* bar_;
    std::vector<std::size_t> handles_;  ///< by handle of the section: the vertex
    bool filling_ = false;
    std::shared_ptr<const derive::Derived> dragBase_;  ///< results when a drag of a stretch began
};

}  // namespace erdwerk::app
