#pragma once
// Grades: the selected 3D line as long-section and as table, both editable.

#include <QLabel>
#include <QTableWidget>
#include <QWidget>

#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "app/section/section_view.h"

namespace erdwerk::app {

class GradesPage : public BenchPage {
    Q_OBJECT
public:
    explicit GradesPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] SectionView* section() { return section_; }

private:
    void connectParts();
    void refresh();
    void fillTable(const linework::ResolvedLine& resolved, const linework::Line3D& line);
    /// What typing into a cell does; nothing where nothing can be typed.
    [[nodiscard]] std::optional<document::Edit> cellEdit(int row, int column, const QString& text) const;
    void edited(int row, int column);
    void setRule(std::size_t vertex, const linework::HeightRule& rule, bool preview);
    void showHover();
    [[nodiscard]] const linework::ResolvedLine* resolved() const;

    Session& session_;
    std::optional<ObjectId> line_;
    SectionView* section_;
    QTableWidget* table_;
    bool filling_ = false;
};

}  // namespace erdwerk::app
