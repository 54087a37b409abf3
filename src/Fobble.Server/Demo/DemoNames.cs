namespace Fobble.Server.Demo;

/// <summary>Fifty made-up children, names from many places.</summary>
internal static class DemoNames
{
    public static IReadOnlyList<(string Given, string Family)> Rowan { get; } =
    [
        ("Amara", "Nwosu"),
        ("Anton", "Verhees"),
        ("Bilal", "Qureshi"),
        ("Chiara", "Lombardi"),
        ("Dev", "Anand"),
        ("Edie", "Marlow"),
        ("Farah", "Jalali"),
        ("Gus", "Holloway"),
        ("Hiro", "Tanabe"),
        ("Isla", "Drummond"),
        ("Jonas", "Eklund"),
        ("Kofi", "Mensah"),
        ("Leila", "Haddou"),
        ("Luca", "Bartos"),
        ("Maya", "Delgado"),
        ("Nico", "Petridis"),
        ("Oona", "Virtane"),
        ("Priya", "Suresh"),
        ("Rafi", "Cohen-Lund"),
        ("Sorcha", "Kinsella"),
        ("Tariq", "Bensaid"),
        ("Uma", "Pillai"),
        ("Vera", "Novik"),
        ("Wren", "Ashby"),
        ("Yusuf", "Kaya"),
        ("Zofia", "Wrona"),
    ];

    public static IReadOnlyList<(string Given, string Family)> Alder { get; } =
    [
        ("Adaeze", "Umeh"),
        ("Bram", "Jansma"),
        ("Cato", "Willems"),
        ("Dilan", "Aydin"),
        ("Elif", "Sahin"),
        ("Finn", "Gallagher"),
        ("Greta", "Holm"),
        ("Hamza", "Raza"),
        ("Ivo", "Marek"),
        ("Jaya", "Menon"),
        ("Kaito", "Mori"),
        ("Lina", "Sabbagh"),
        ("Mateo", "Rojas"),
        ("Nell", "Fairway"),
        ("Omar", "Diallo"),
        ("Pia", "Lindholm"),
        ("Quinn", "Abara"),
        ("Rosa", "Medeiros"),
        ("Sami", "Nasser"),
        ("Tove", "Bergqvist"),
        ("Viktor", "Dragan"),
        ("Willa", "Penrose"),
        ("Yara", "Khoury"),
        ("Zeno", "Contos"),
    ];
}
