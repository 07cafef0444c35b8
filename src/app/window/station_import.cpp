#include "app/window/station_import.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDialogButtonBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <set>

#include "app/base/theme.h"

namespace erdwerk::app {

namespace {

constexpr std::size_t mostShown = 500;

}  // namespace

StationImport::StationImport(Session& session, const QString& path, std::vector<route::StationedPoint> rows,
                             ObjectId proposed, QWidget* parent)
    : QDialog(parent), session_(session), name_(QFileInfo(path).completeBaseName()), rows_(std::move(rows)) {
    setObjectName(QStringLiteral("stationImport"));
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(tr("Points by station from %1").arg(QFileInfo(path).fileName()));
    resize(720, 460);
    auto* layout = new QVBoxLayout(this);
    auto* bar = new QHBoxLayout;
    alignments_ = new QComboBox;
    alignments_->setAccessibleName(tr("Alignment"));
    for (const ObjectId id : session_.document().all<objects::Alignment>())
        alignments_->addItem(QString::fromStdString(session_.document().nameOf(id)),
                             QVariant::fromValue<qulonglong>(id.value));
    alignments_->setCurrentIndex(
        std::max(0, alignments_->findData(QVariant::fromValue<qulonglong>(proposed.value))));
    tied_ = new QCheckBox(tr("Tied: the points go along with the alignment"));
    tied_->setChecked(true);
    bar->addWidget(new QLabel(tr("Stations of")));
    bar->addWidget(alignments_);
    bar->addSpacing(16);
    bar->addWidget(tied_);
    bar->addStretch(1);
    layout->addLayout(bar);
    table_ = new QTableWidget(0, 6);
    table_->setAccessibleName(tr("Rows of the file"));
    table_->setHorizontalHeaderLabels(
        {tr("Name"), tr("Station"), tr("Offset"), tr("Height"), tr("Code"), tr("Comes to stand at")});
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->horizontalHeader()->setStretchLastSection(true);
    layout->addWidget(table_, 1);
    summary_ = new QLabel;
    summary_->setWordWrap(true);
    layout->addWidget(summary_);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
    import_ = buttons->addButton(tr("Bring in"), QDialogButtonBox::AcceptRole);
    layout->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::accepted, this, &StationImport::bringIn);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    connect(alignments_, &QComboBox::currentIndexChanged, this, &StationImport::refresh);
    connect(&session_, &Session::resultsChanged, this, &StationImport::refresh);
    refresh();
}

void StationImport::refresh() {
    const ObjectId alignment{alignments_->currentData().toULongLong()};
    const auto places = operations::placesOf(session_.derived(), alignment, rows_);
    const auto& display = session_.document().settings().display;
    const auto text = [](const std::string& s) { return QString::fromStdString(s); };
    std::size_t off = 0;
    for (const auto& place : places) off += place ? 0 : 1;
    const std::size_t shown = std::min(rows_.size(), mostShown);
    table_->setRowCount(static_cast<int>(shown));
    for (std::size_t i = 0; i < shown; ++i) {
        const auto& row = rows_[i];
        const std::array<QString, 6> cells{text(row.name),
                                           text(formatStation(row.station, display)),
                                           text(formatFixed(row.offset, display.lengthDecimals)),
                                           row.height ? text(formatHeight(row.height, display)) : QString(),
                                           text(row.code),
                                           places[i]
                                               ? text(formatPosition(places[i]->x, places[i]->y, display))
                                               : tr("not on it (line %1)").arg(row.line)};
        for (int c = 0; c < 6; ++c) {
            auto* item = new QTableWidgetItem(cells[static_cast<std::size_t>(c)]);
            if (c > 0 && c < 4) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            if (!places[i]) item->setForeground(theme::madder);
            table_->setItem(static_cast<int>(i), c, item);
        }
    }
    table_->resizeColumnsToContents();
    std::set<std::string> names;
    for (const auto& row : rows_) names.insert(row.name);
    const bool repeat = names.size() != rows_.size();
    tied_->setEnabled(!repeat);
    if (repeat) tied_->setChecked(false);
    QString words = off == 0 ? tr("%1 points").arg(rows_.size())
                             : tr("%1 points; %2 stations are not on the alignment and stay out")
                                   .arg(rows_.size() - off)
                                   .arg(off);
    if (repeat) words += tr(". Names repeat, so the points cannot be tied");
    summary_->setText(words);
    import_->setEnabled(off < rows_.size());
}

void StationImport::bringIn() {
    const ObjectId alignment{alignments_->currentData().toULongLong()};
    const auto places = operations::placesOf(session_.derived(), alignment, rows_);
    std::vector<route::StationedPoint> on;
    for (std::size_t i = 0; i < rows_.size(); ++i)
        if (places[i]) on.push_back(rows_[i]);
    const auto ties = tied_->isChecked() ? operations::StationTies::Tied : operations::StationTies::Loose;
    if (session_.edit(tr("Points by station"),
                      operations::pointsByStation(session_.results(), alignment, name_.toStdString(),
                                                  std::move(on), ties)))
        accept();
}

}  // namespace erdwerk::app

#include "moc_station_import.cpp"
