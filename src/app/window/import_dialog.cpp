#include "app/window/import_dialog.h"

#include <QDialogButtonBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QVBoxLayout>
#include <array>

#include "app/base/theme.h"
#include "core/base/display.h"
#include "core/base/notation.h"

namespace erdwerk::app {

using format::Column;

namespace {
constexpr std::array<Column, 7> columns{Column::Ignore, Column::Number, Column::Easting, Column::Northing,
                                        Column::Height, Column::Code,   Column::Note};
constexpr std::array<char, 4> separators{',', ';', '\t', ' '};
constexpr std::array<LengthUnit, 3> units{LengthUnit::Metre, LengthUnit::InternationalFoot,
                                          LengthUnit::UsSurveyFoot};
constexpr std::size_t previewRows = 12;
}  // namespace

ImportDialog::ImportDialog(QString path, std::string bytes, format::CsvLayout layout, LengthUnit projectUnit,
                           QWidget* parent)
    : QDialog(parent),
      path_(std::move(path)),
      bytes_(std::move(bytes)),
      layout_(std::move(layout)),
      projectUnit_(projectUnit) {
    setObjectName(QStringLiteral("importDialog"));
    setWindowTitle(tr("Import survey points from %1").arg(QFileInfo(path_).fileName()));
    resize(880, 560);
    worker_ = std::make_unique<LatestWorker<Request, Read>>(
        this,
        [this](const Request& request, const std::atomic<bool>&) -> std::optional<Read> {
            return Read{format::readPoints(bytes_, request.layout, projectUnit_, path_.toStdString()),
                        request.choice};
        },
        [this](Read read) { fillCounts(std::move(read.points), read.choice); },
        [this](const QString& reason) { fillCounts(badInput(reason.toStdString()), choice_); });
    build();
    filling_ = true;
    for (std::size_t i = 0; i < separators.size(); ++i)
        if (separators[i] == layout_.separator) separator_->setCurrentIndex(static_cast<int>(i));
    header_->setChecked(layout_.header);
    comma_->setChecked(layout_.decimalComma);
    for (std::size_t i = 0; i < units.size(); ++i)
        if (units[i] == projectUnit) unit_->setCurrentIndex(static_cast<int>(i));
    filling_ = false;
    guess();
    connect(separator_, &QComboBox::currentIndexChanged, this, [this] {
        layout_.columns.clear();
        guess();
        refresh();
    });
    for (QCheckBox* box : {header_, comma_}) connect(box, &QCheckBox::toggled, this, &ImportDialog::refresh);
    connect(unit_, &QComboBox::currentIndexChanged, this, &ImportDialog::refresh);
    refresh();
}

QLayout* ImportDialog::buildBar() {
    auto* bar = new QHBoxLayout;
    separator_ = new QComboBox;
    separator_->addItems({tr("comma"), tr("semicolon"), tr("tab"), tr("spaces")});
    separator_->setAccessibleName(tr("Separator"));
    header_ = new QCheckBox(tr("First row names the columns"));
    comma_ = new QCheckBox(tr("Decimal comma"));
    unit_ = new QComboBox;
    unit_->addItems({tr("metres"), tr("international feet"), tr("US survey feet")});
    unit_->setAccessibleName(tr("Unit of the file"));
    bar->addWidget(new QLabel(tr("Columns are separated by")));
    bar->addWidget(separator_);
    bar->addSpacing(12);
    bar->addWidget(header_);
    bar->addSpacing(12);
    bar->addWidget(comma_);
    bar->addStretch(1);
    bar->addWidget(new QLabel(tr("Unit")));
    bar->addWidget(unit_);
    return bar;
}

void ImportDialog::build() {
    auto* layout0 = new QVBoxLayout(this);
    layout0->addLayout(buildBar());
    auto* hint =
        new QLabel(tr("Say over each column what it holds. Below are the first rows as they will be read."));
    hint->setStyleSheet(QStringLiteral("color: #5F6B74;"));
    layout0->addWidget(hint);
    preview_ = new QTableWidget;
    preview_->setObjectName(QStringLiteral("preview"));
    preview_->setAccessibleName(tr("Preview"));
    preview_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    preview_->verticalHeader()->setDefaultSectionSize(24);
    preview_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    layout0->addWidget(preview_, 1);
    counts_ = new QLabel;
    counts_->setFont(theme::font(13, true));
    skipped_ = new QLabel;
    skipped_->setWordWrap(true);
    skipped_->setStyleSheet(QStringLiteral("color: #8A6210;"));
    layout0->addWidget(counts_);
    layout0->addWidget(skipped_);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Cancel);
    import_ = buttons->addButton(tr("Import"), QDialogButtonBox::AcceptRole);
    import_->setObjectName(QStringLiteral("import"));
    import_->setDefault(true);
    layout0->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
}

/// Meanings for columns that have none yet: by the header, else number, easting, northing, height, code in
/// order.
void ImportDialog::guess() {
    layout_.separator = separators[static_cast<std::size_t>(separator_->currentIndex())];
    const auto table = format::readTable(bytes_, layout_.separator, path_.toStdString(), 3);
    if (!table || table->rows.empty()) return;
    if (layout_.columns.empty())
        for (const auto& cell : table->rows.front().cells)
            layout_.columns.push_back(format::columnByName(cell));
    const bool known = std::any_of(layout_.columns.begin(), layout_.columns.end(),
                                   [](Column c) { return c != Column::Ignore; });
    if (known) {
        // A first column nobody named is usually the number; the preview shows it.
        const bool numbered = std::find(layout_.columns.begin(), layout_.columns.end(), Column::Number) !=
                              layout_.columns.end();
        if (!numbered && layout_.columns.front() == Column::Ignore) layout_.columns.front() = Column::Number;
        return;
    }
    static constexpr std::array<Column, 6> usual{Column::Number, Column::Easting, Column::Northing,
                                                 Column::Height, Column::Code,    Column::Note};
    for (std::size_t i = 0; i < layout_.columns.size() && i < usual.size(); ++i)
        layout_.columns[i] = usual[i];
}

void ImportDialog::refresh() {
    if (filling_) return;
    layout_.header = header_->isChecked();
    layout_.decimalComma = comma_->isChecked();
    layout_.unit = units[static_cast<std::size_t>(unit_->currentIndex())];
    fillPreview();
    readAll();
}

void ImportDialog::fillPreview() {
    filling_ = true;
    const auto table = format::readTable(bytes_, layout_.separator, path_.toStdString(), previewRows + 1);
    preview_->clear();
    preview_->setRowCount(0);
    const auto count = layout_.columns.size();
    preview_->setColumnCount(static_cast<int>(count));
    QStringList names;
    for (std::size_t c = 0; c < count; ++c) names << tr("Column %1").arg(c + 1);
    preview_->setHorizontalHeaderLabels(names);
    preview_->setRowCount(1);
    preview_->setVerticalHeaderItem(0, new QTableWidgetItem(tr("holds")));
    for (std::size_t c = 0; c < count; ++c) {
        auto* box = new QComboBox;
        for (const Column column : columns)
            box->addItem(QString::fromUtf8(format::columnName(column).data()));
        box->setCurrentIndex(static_cast<int>(std::find(columns.begin(), columns.end(), layout_.columns[c]) -
                                              columns.begin()));
        box->setObjectName(QStringLiteral("column%1").arg(c));
        connect(box, &QComboBox::activated, this, [this, c](int i) {
            const Column chosen = columns[static_cast<std::size_t>(i)];
            // A meaning belongs to one column.
            for (Column& other : layout_.columns)
                if (other == chosen) other = Column::Ignore;
            layout_.columns[c] = chosen;
            QMetaObject::invokeMethod(this, &ImportDialog::refresh, Qt::QueuedConnection);
        });
        preview_->setCellWidget(0, static_cast<int>(c), box);
    }
    if (table) {
        for (std::size_t r = layout_.header ? 1 : 0; r < table->rows.size() && r < previewRows + 1; ++r) {
            const int row = preview_->rowCount();
            preview_->insertRow(row);
            preview_->setVerticalHeaderItem(row, new QTableWidgetItem(QString::number(table->rows[r].line)));
            for (std::size_t c = 0; c < count; ++c) {
                const auto& cells = table->rows[r].cells;
                const std::string raw = c < cells.size() ? cells[c] : "";
                auto* item = new QTableWidgetItem(QString::fromStdString(raw));
                const Column meaning = layout_.columns[c];
                const bool figure =
                    meaning == Column::Easting || meaning == Column::Northing || meaning == Column::Height;
                if (figure) {
                    const auto value = parseNumber(raw, layout_.decimalComma);
                    item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                    if (value)
                        item->setText(QString::fromStdString(
                            formatFixed(convertLength(*value, layout_.unit, projectUnit_), 3)));
                    else if (raw.empty() && meaning == Column::Height)
                        item->setText(tr("no height"));
                    if (!value) item->setForeground(raw.empty() ? theme::ochre.darker(130) : theme::madder);
                }
                if (meaning == Column::Ignore) item->setForeground(QColor(0x9A, 0xA0, 0xA4));
                preview_->setItem(row, static_cast<int>(c), item);
            }
        }
    }
    filling_ = false;
}

void ImportDialog::readAll() {
    points_.reset();
    import_->setEnabled(false);
    counts_->setText(tr("Reading all rows"));
    worker_->request({layout_, ++choice_}, true);
}

void ImportDialog::fillCounts(Result<format::CsvPoints> read, int choice) {
    // It is to be read otherwise by now.
    if (choice != choice_) return;
    skipped_->clear();
    if (!read) {
        counts_->setText(QString::fromStdString(read.error().text));
        return;
    }
    std::size_t without = 0;
    for (const auto& p : read->points) without += p.height ? 0 : 1;
    const auto counted = [](std::size_t n, const QString& one, const QString& many) {
        return QString::number(n) + QLatin1Char(' ') + (n == 1 ? one : many);
    };
    counts_->setText(tr("%1 will be read, %2 of them without height. %3 will be skipped.")
                         .arg(counted(read->points.size(), tr("point"), tr("points")))
                         .arg(without)
                         .arg(counted(read->skipped.size(), tr("row"), tr("rows"))));
    QStringList reasons;
    for (std::size_t i = 0; i < read->skipped.size() && i < 4; ++i)
        reasons << tr("line %1: %2")
                       .arg(read->skipped[i].line)
                       .arg(QString::fromStdString(read->skipped[i].reason));
    if (read->skipped.size() > 4) reasons << tr("and %1 more").arg(read->skipped.size() - 4);
    skipped_->setText(reasons.join(QStringLiteral(";  ")));
    import_->setEnabled(!read->points.empty());
    points_ = std::move(*read);
}

}  // namespace erdwerk::app

#include "moc_import_dialog.cpp"
