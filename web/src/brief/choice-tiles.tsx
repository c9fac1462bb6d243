interface ChoiceTilesProps<T extends string> {
  legend: string
  name: string
  value: T
  choices: readonly { id: T; name: string; about?: string }[]
  onChoose: (value: T) => void
  problem?: string
}

/** One of a few, all in sight. */
export function ChoiceTiles<T extends string>({
  legend,
  name,
  value,
  choices,
  onChoose,
  problem,
}: ChoiceTilesProps<T>) {
  return (
    <fieldset className="choice-tiles mt-3">
      <legend className="fs-6 fw-bold mb-1">{legend}</legend>
      <div className="choices">
        {choices.map((choice) => (
          <label key={choice.id} className="choice-tile">
            <input
              type="radio"
              className="visually-hidden"
              name={name}
              value={choice.id}
              checked={choice.id === value}
              onChange={() => onChoose(choice.id)}
            />
            <strong>{choice.name}</strong>
            {choice.about && <span>{choice.about}</span>}
          </label>
        ))}
      </div>
      {problem && <p className="text-danger m-0">{problem}</p>}
    </fieldset>
  )
}
