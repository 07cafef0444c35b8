#pragma once
// Profile: the ground along an alignment, the design of PVIs over it, grades, K values, cut and fill.

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QToolButton>
#include <QWidget>

#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "app/section/section_view.h"
#include "core/base/id.h"
#include "core/route/profile.h"

namespace erdwerk::app {

class ProfilePage : public BenchPage {
    Q_OBJECT
public:
    explicit ProfilePage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTableWidget* table() { return table_; }
    [[nodiscard]] SectionView* section() { return section_; }
    [[nodiscard]] std::optional<ObjectId> shown() const { return profile_; }
    [[nodiscard]] QToolButton* rowsMenu() { return rows_; }
    [[nodiscard]] QToolButton* moreMenu() { return more_; }

Q_SIGNALS:
    void newProfilePressed();
    void drawingPressed();  ///< the profile as PDF or SVG
    void tablePressed();    ///< its table as CSV or XLSX

private:
    QLayout* buildBar();
    QWidget* buildTable();
    void connectBar();
    void connectSection();
    [[nodiscard]] std::optional<ObjectId> wanted() const;
    void fillChoices();
    [[nodiscard]] double pixelsPerUnit(const objects::Profile& profile) const;
    void refresh();
    /// What the menus Rows and More offer for the profile shown.
    void fillMenus();
    void fillRows(const objects::Profile& profile);
    void fillMore(const objects::Profile& profile);
    void askScale();
    void askLines();
    void groundFromSelection();
    void fillTable(const std::vector<route::Pvi>& design);
    /// What typing into a cell does; nothing where nothing can be typed.
    [[nodiscard]] std::optional<document::Edit> cellEdit(int row, int column, const QString& text) const;
    void edited(int row, int column);
    void change(const QString& what, const std::function<void(objects::Profile&)>& change);
    void addPvi();
    void addPviAt(double station, double height);
    void removeAt(int row);
    /// The exaggeration that is drawn, in the field that sets it.
    void showExaggeration();
    void removePvi();
    void showHover();
    [[nodiscard]] const objects::Profile* profile() const;
    [[nodiscard]] const route::AlignmentGeometry* alignment() const;
    [[nodiscard]] QString stationText(double running) const;

    Session& session_;
    std::optional<ObjectId> profile_;
    QComboBox* choice_;
    QComboBox* ground_;
    QDoubleSpinBox* exaggeration_;
    QLabel* depth_;
    QToolButton* rows_;
    QToolButton* more_;
    QPushButton* add_;
    QPushButton* start_;
    SectionView* section_;
    QTableWidget* table_;
    bool filling_ = false;
};

}  // namespace erdwerk::app
